import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { Link as To } from "react-router";
import { answer, client, type Conditions } from "../api/client";

/** What was worked out for the wanted colours is worked out anew. */
export function wantedChanged(queries: QueryClient) {
  void queries.invalidateQueries({ queryKey: ["wanted"] });
  void queries.invalidateQueries({ queryKey: ["box", "choose"] }); // which may have been for them
}

/** Puts a colour among the wanted ones, as it looks dry in daylight: nowhere else is it the colour to match. */
export function WantIt({
  name,
  lab,
  seen,
}: {
  name: string;
  lab: number[];
  seen: Pick<Conditions, "light" | "judged">;
}) {
  const queries = useQueryClient();
  const want = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/wanted", { body: [{ name: name.slice(0, 80), colour: lab.join(",") }] }),
      ),
    onSuccess: () => wantedChanged(queries),
  });
  if (seen.light !== "D65" || seen.judged !== "dry") return null;
  if (want.isSuccess) {
    return (
      <Typography variant="caption" role="status">
        Among the <To to="/compare">wanted colours</To> now.
      </Typography>
    );
  }
  return (
    <>
      <Button
        size="small"
        color="inherit"
        disabled={want.isPending}
        onClick={() => want.mutate()}
        sx={{
          p: 0,
          minWidth: 0,
          fontSize: 12,
          lineHeight: "18px",
          fontWeight: 500,
          textAlign: "left",
          alignSelf: "flex-start",
        }}
      >
        want this colour
      </Button>
      {want.error && (
        <Typography variant="caption" role="alert">
          {want.error.message}
        </Typography>
      )}
    </>
  );
}
