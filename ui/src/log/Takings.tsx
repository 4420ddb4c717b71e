import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link as To } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { grey } from "../drawing/style";
import { day, times } from "./words";

/** What was taken into the box, dated; each can be taken back at any time. */
export function Takings({ of }: { of: Schemas["Taking"][] }) {
  const queries = useQueryClient();
  const undo = useMutation({
    mutationFn: ({ id, undone }: { id: number; undone: boolean }) =>
      answer(client.PUT("/api/takings/{id}", { params: { path: { id } }, body: { undone } })),
    onSettled: () => void queries.invalidateQueries(), // the box, wheels and matches follow
  });
  return (
    <Box component="ul" aria-label="taken into the box" sx={{ m: 0, p: 0, listStyle: "none" }}>
      {of.map((t) => (
        <Box
          component="li"
          key={t.id}
          data-undone={t.undone}
          sx={{ borderTop: `1px solid ${grey.hairline}`, py: 1 }}
        >
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
            <Typography sx={{ flex: 1, fontWeight: 600 }}>
              {t.undone ? "Taken back" : "Taken"}: {day(t.at)}
            </Typography>
            <Button
              color="inherit"
              size="small"
              disabled={undo.isPending}
              onClick={() => undo.mutate({ id: t.id, undone: !t.undone })}
            >
              {t.undone ? "take it again" : "take it back"}
            </Button>
          </Box>
          <Typography variant="body2" sx={{ color: t.undone ? grey.third : grey.ink }}>
            {t.film > 0
              ? `The ${t.medium} laid ${times(t.film)} as thick as usual.`
              : t.strengths.length > 0
                ? `${t.strengths.map((s) => `${s.name} ${times(s.is / s.was)} what it was`).join("; ")}.`
                : `As they were taken for, and known the better for it: ${t.asBefore.join(", ")}.`}
          </Typography>
          <Typography variant="caption">
            From {t.from}, in {t.medium}
            {t.sitting > 0 && (
              <>
                ; <To to={`/log/${t.sitting}`}>the sitting</To>
              </>
            )}
          </Typography>
        </Box>
      ))}
      {undo.error && <Typography role="alert">{undo.error.message}</Typography>}
    </Box>
  );
}
