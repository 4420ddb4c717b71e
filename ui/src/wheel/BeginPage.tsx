import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Profile, type Role, type Roles } from "../api/client";
import { keptQuery, paintsQuery, wheelsQuery } from "../api/queries";
import { plainSettings, roles } from "../app/choices";
import { paintName } from "../app/paintName";
import { PaintPicker } from "../app/PaintPicker";
import { Shell } from "../app/Shell";
import { grey } from "../app/theme";

/** Three paints make a wheel. */
export function BeginPage({ painter }: { painter: Profile }) {
  const paints = useQuery(paintsQuery(plainSettings));
  const wheels = useQuery(wheelsQuery);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<Partial<Roles>>({});
  const complete = roles.every((r) => chosen[r]);
  const nameOf = (id: string) => paintName(paints.data?.find((p) => p.id === id)?.name ?? id).name;
  const create = useMutation({
    mutationFn: (picked: Roles) =>
      answer(
        client.POST("/api/wheels", {
          body: { name: wheels.data?.length ? `Wheel ${wheels.data.length + 1}` : "First wheel", roles: picked, settings: plainSettings },
        }),
      ),
    onSuccess: (w) => {
      queries.setQueryData(keptQuery(w.id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
      void navigate(`/wheel/${w.id}`);
    },
  });
  return (
    <Shell painter={painter}>
      <Box sx={{ display: "flex", flexDirection: "column", height: { md: "calc(100vh - 116px)" }, minHeight: 420 }}>
        <Typography variant="h2">Three paints make a wheel</Typography>
        <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "repeat(3, minmax(0, 1fr))" }, gap: 4, flex: 1, minHeight: 0, mt: 2 }}>
          {roles.map((role: Role, i) => (
            <Box key={role} sx={{ minHeight: 0, height: { xs: 360, md: "auto" } }}>
              <PaintPicker
                role={role}
                paints={paints.data ?? []}
                present={chosen[role]}
                taken={Object.values(chosen)}
                autoFocus={i === 0}
                onPick={(p) => setChosen({ ...chosen, [role]: p.id })}
              />
            </Box>
          ))}
        </Box>
        <Box sx={{ display: "flex", alignItems: "center", gap: 3, pt: 2, borderTop: `1px solid ${grey.hairline}`, position: "sticky", bottom: 0, bgcolor: grey.paper, pb: 1 }}>
          <Typography sx={{ flex: 1 }}>
            {roles.map((r) => (chosen[r] ? nameOf(chosen[r]) : `a ${r}`)).join(", ")}
            {create.error && <b> {create.error.message}</b>}
          </Typography>
          {!!wheels.data?.length && (
            <Button color="inherit" onClick={() => void navigate("/")}>
              back to my wheels
            </Button>
          )}
          <Button variant="contained" size="large" disabled={!complete || create.isPending} onClick={() => create.mutate(chosen as Roles)}>
            see the wheel
          </Button>
        </Box>
      </Box>
    </Shell>
  );
}
