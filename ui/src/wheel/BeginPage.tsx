import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import {
  answer,
  client,
  type Profile,
  type Schemas,
  type Selection,
  type SystemKind,
} from "../api/client";
import { boxQuery, paintsQuery, wheelsQuery } from "../api/queries";
import { kindWords, plainSettings } from "../parts/choices";
import { PaintPicker } from "../parts/PaintPicker";
import { Shell } from "../app/Shell";
import { grey, placeHeight } from "../drawing/style";
import { useNewWheel } from "../parts/useNewWheel";

const roles = ["yellow", "red", "blue"] as const;

/** Three paints make a wheel; or a kind of system, filled from the box. */
export function BeginPage({ painter }: { painter: Profile }) {
  const paints = useQuery(paintsQuery(plainSettings));
  const wheels = useQuery(wheelsQuery);
  const [chosen, setChosen] = useState<Partial<Record<(typeof roles)[number], string>>>({});
  const complete = roles.every((r) => chosen[r]);
  const create = useNewWheel();
  const navigate = useNavigate();
  const box = useQuery(boxQuery(plainSettings));
  const own = useMemo(
    () =>
      box.data?.tubes.map((t) => ({
        ...t.paint,
        shortName: t.content.nickname || t.paint.shortName,
      })),
    [box.data],
  );
  const nameOf = (id: string) =>
    [...(own ?? []), ...(paints.data ?? [])].find((p) => p.id === id)?.shortName ?? id;
  const begin = (system: Selection, name: string, place: "wheel" | "system") =>
    create.mutate({ system, name, place });
  const [filled, setFilled] = useState<Schemas["Filling"]>();
  const preset = useMutation({
    mutationFn: (kind: SystemKind) =>
      answer(client.GET("/api/system/filled", { params: { query: { kind } } })),
    onSuccess: (made) => {
      setFilled(made);
      if (made.missing.length === 0) begin(made.own, kindWords[made.own.kind].name, "system");
    },
  });
  const problem = create.error ?? preset.error;
  return (
    <Shell painter={painter} title="Begin a wheel">
      <Box
        sx={{
          display: "flex",
          flexDirection: "column",
          height: { md: placeHeight },
          minHeight: 420,
        }}
      >
        <Typography variant="h2">Three paints make a wheel</Typography>
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
          <Typography component="span" sx={{ color: grey.second }}>
            or a whole system, filled from your box:
          </Typography>
          {(Object.keys(kindWords) as SystemKind[]).map((kind) => (
            <ButtonBase
              key={kind}
              title={kindWords[kind].what}
              disabled={preset.isPending}
              onClick={() => preset.mutate(kind)}
              sx={{
                fontSize: 15,
                fontWeight: 500,
                py: 0.75,
                "&:hover": { bgcolor: grey.track },
              }}
            >
              {kindWords[kind].name}
            </ButtonBase>
          ))}
        </Box>
        {filled && filled.missing.length > 0 && (
          <Box role="status" sx={{ borderLeft: `4px solid ${grey.ink}`, pl: 1.5, mt: 1 }}>
            <Typography>{filled.says}</Typography>
            <Button
              color="inherit"
              sx={{ px: 0, mr: 3 }}
              onClick={() => begin(filled.whole, kindWords[filled.whole.kind].name, "system")}
            >
              with those of the library
            </Button>
            {filled.wheel && (
              <Button
                color="inherit"
                sx={{ px: 0 }}
                onClick={() => begin(filled.own, kindWords[filled.own.kind].name, "system")}
              >
                with my own alone
              </Button>
            )}
          </Box>
        )}
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "repeat(3, minmax(0, 1fr))" },
            gap: 4,
            flex: 1,
            minHeight: 0,
            mt: 2,
          }}
        >
          {roles.map((role, i) => (
            <Box key={role} sx={{ minHeight: 0, height: { xs: 360, md: "auto" } }}>
              <PaintPicker
                role={role}
                paints={paints.data ?? []}
                own={own?.length ? own : undefined}
                present={chosen[role]}
                taken={Object.values(chosen)}
                autoFocus={i === 0}
                onPick={(p) => setChosen({ ...chosen, [role]: p.id })}
              />
            </Box>
          ))}
        </Box>
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            columnGap: 3,
            pt: 2,
            borderTop: `1px solid ${grey.hairline}`,
            position: "sticky",
            bottom: 0,
            bgcolor: grey.paper,
            pb: 1,
          }}
        >
          <Typography sx={{ flex: 1 }}>
            {roles.map((r) => (chosen[r] ? nameOf(chosen[r]) : `a ${r}`)).join(", ")}
            {problem && <b> {problem.message}</b>}
          </Typography>
          {!!wheels.data?.length && (
            <Button color="inherit" onClick={() => void navigate("/")}>
              back to my wheels
            </Button>
          )}
          <Button
            variant="contained"
            size="large"
            disabled={!complete || create.isPending}
            onClick={() =>
              begin(
                {
                  kind: "triad",
                  roles: roles.map((r) => [chosen[r]!]),
                  chosen: [[], [], []],
                  riders: {},
                  note: "",
                },
                wheels.data?.length
                  ? roles.map((r) => nameOf(chosen[r]!)).join(", ")
                  : "First wheel",
                "wheel",
              )
            }
          >
            see the wheel
          </Button>
        </Box>
      </Box>
    </Shell>
  );
}
