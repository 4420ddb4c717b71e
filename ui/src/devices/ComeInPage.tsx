import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link as To, useNavigate } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { sessionQuery } from "../api/queries";
import { Mark } from "../drawing/Marks";
import { figures } from "../drawing/style";
import { Waiting } from "../parts/Waiting";

/** The code and the page that stand behind # in an address: "#code/wheel/3". */
function fromFragment(fragment: string): { code: string; to: string } {
  const [, code = "", to = "/"] = /^#([^/]+)(\/(?!\/).*)?$/.exec(fragment) ?? [];
  return { code, to };
}

const askEvery = 1500; // ms

/** Where a phone comes in with a code: whose studio it enters, a press, and the desk's answer. */
export function ComeInPage({ session }: { session: Schemas["Session"] }) {
  const [{ code, to }] = useState(() => fromFragment(window.location.hash));
  const navigate = useNavigate();
  const queries = useQueryClient();
  const comeIn = useMutation({
    mutationFn: () => answer(client.POST("/api/devices/come-in", { body: { code } })),
  });
  const waits = comeIn.isSuccess;
  // What it opens; while it waits, whether it is still to be answered.
  const opens = useQuery({
    queryKey: ["code", code],
    queryFn: () => answer(client.POST("/api/devices/look", { body: { code } })),
    refetchInterval: (q) => waits && q.state.status !== "error" && askEvery,
    gcTime: 0,
  });
  const whose = opens.data?.painter;
  const inside = whose !== undefined && session.painter?.id === whose;
  const { dataUpdatedAt, errorUpdatedAt } = opens;
  useEffect(() => {
    if (waits) void queries.invalidateQueries(sessionQuery);
  }, [waits, dataUpdatedAt, errorUpdatedAt, queries]);
  useEffect(() => {
    if (!inside) return;
    // One that is in already leaves the code to nobody.
    if (!waits) void client.DELETE("/api/devices/code");
    void navigate(to, { replace: true });
  }, [inside, waits, navigate, to]);

  return (
    <Box component="main" sx={{ maxWidth: 460, mx: "auto", p: "40px 20px" }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
        <Mark size={34} />
        <Typography sx={{ fontSize: 22, fontWeight: 600 }}>Gyrophane</Typography>
      </Box>
      {opens.isPending || inside ? (
        <Box sx={{ mt: 4 }}>
          <Waiting failing={opens.failureCount > 0} />
        </Box>
      ) : waits && !opens.isError ? (
        <Box role="status" sx={{ mt: 5 }}>
          <Typography variant="h2" component="h1">
            Waiting for the desk
          </Typography>
          <Typography sx={{ mt: 2 }}>Say yes there, where this number stands too:</Typography>
          <Box sx={{ fontFamily: figures, fontSize: 72, lineHeight: "96px" }}>
            {comeIn.data.check}
          </Box>
        </Box>
      ) : opens.isError || comeIn.isError ? (
        <Box sx={{ mt: 5 }}>
          <Typography variant="h2" component="h1">
            Not this time
          </Typography>
          <Typography role="alert" sx={{ mt: 2 }}>
            {waits
              ? "The desk did not let this device in, or took too long."
              : (comeIn.error ?? opens.error)?.message}
          </Typography>
          <Button component={To} to="/" variant="outlined" size="large" sx={{ mt: 3 }}>
            come in by name
          </Button>
        </Box>
      ) : (
        <>
          <Typography sx={{ mt: 5 }}>This device enters the studio of</Typography>
          <Typography
            variant="h1"
            component="h1"
            sx={{ fontSize: 34, lineHeight: "42px", overflowWrap: "anywhere" }}
          >
            {opens.data?.name}
          </Typography>
          <Typography sx={{ mt: 2 }}>
            It then sees and changes all that is there, until it is signed out here or at the desk.
          </Typography>
          <Button
            variant="contained"
            size="large"
            fullWidth
            disabled={comeIn.isPending}
            onClick={() => comeIn.mutate()}
            sx={{ mt: 4, minHeight: 60, fontSize: 19 }}
          >
            come in
          </Button>
        </>
      )}
    </Box>
  );
}
