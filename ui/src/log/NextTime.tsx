import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Schemas } from "../api/client";
import { reminderQuery, sittingJournalQuery } from "../api/queries";
import { grey } from "../drawing/style";

type Writing = { was: string; says: string };

/** What was written and not kept yet, over a reload too. */
const heldAt = (place: string) =>
  JSON.parse(sessionStorage.getItem(place) ?? "null") as Writing | null;

/** What to do otherwise when the wheel is painted again: it is shown when that is planned. */
export function NextTime({ journal }: { journal: Schemas["SittingJournal"] }) {
  const queries = useQueryClient();
  // What it was when the painter began to write: a save names it.
  const place = `next time of ${journal.id}`;
  const [writing, hold] = useState(() => heldAt(place));
  const setWriting = (now: Writing | null) => {
    hold(now);
    if (now) sessionStorage.setItem(place, JSON.stringify(now));
    else sessionStorage.removeItem(place);
  };
  const said = writing?.says ?? journal.nextTime;
  const save = useMutation({
    mutationFn: (body: { was: string; says: string }) =>
      answer(
        client.PUT("/api/sittings/{id}/next-time", { params: { path: { id: journal.id } }, body }),
      ),
    onSuccess: (came, sent) => {
      queries.setQueryData(sittingJournalQuery(journal.id).queryKey, came);
      void queries.invalidateQueries(reminderQuery(journal.wheel));
      const now = heldAt(place);
      setWriting(now && now.says !== sent.says ? { ...now, was: sent.says } : null);
    },
    onError: () => void queries.invalidateQueries(sittingJournalQuery(journal.id)),
  });
  const write = (says: string) => setWriting({ was: writing?.was ?? journal.nextTime, says });
  const keep = () => {
    if (writing && writing.says !== writing.was) save.mutate(writing);
    else setWriting(null);
  };
  const fresh = journal.suggests.filter((s) => !said.includes(s));
  return (
    <Box component="section" aria-label="next time" sx={{ mt: 2 }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
        <TextField
          label="next time"
          multiline
          fullWidth
          minRows={1}
          value={said}
          placeholder="what you would do otherwise"
          onChange={(e) => write(e.target.value)}
          onBlur={keep}
          slotProps={{ htmlInput: { maxLength: 500 }, inputLabel: { shrink: true } }}
          error={!!save.error}
          helperText={
            save.error
              ? save.error.message
              : "Comes up when this wheel is planned and painted again."
          }
        />
        {writing && (
          <Button
            color="inherit"
            onMouseDown={(e) => e.preventDefault() /* leaving the field would keep it first */}
            onClick={keep}
            disabled={save.isPending}
            sx={{ minHeight: 44 }}
          >
            keep
          </Button>
        )}
      </Box>
      {fresh.length > 0 && (
        <Box component="ul" aria-label="suggested" sx={{ m: 0, p: 0, listStyle: "none" }}>
          {fresh.slice(0, 4).map((s) => (
            <Box
              component="li"
              key={s}
              sx={{ display: "flex", alignItems: "center", gap: 1, color: grey.second }}
            >
              <Typography variant="body2" sx={{ minWidth: 0, flex: "0 1 auto" }}>
                {s}
              </Typography>
              <Button
                size="small"
                color="inherit"
                aria-label={`put down: ${s}`}
                disabled={save.isPending}
                onClick={() => {
                  const was = writing?.was ?? journal.nextTime;
                  const says = said ? `${said.trimEnd()} ${s}` : s;
                  setWriting({ was, says });
                  save.mutate({ was, says });
                }}
                sx={{ flex: "none", minHeight: { xs: 48, md: 36 } }}
              >
                put down
              </Button>
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
