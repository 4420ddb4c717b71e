import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, client, type Profile } from "../api/client";
import { sessionsQuery } from "../api/queries";
import { grey } from "../drawing/style";
import { dayAndTime } from "../parts/dates";
import { Entry } from "../parts/Entry";

/** Where a painter is signed in; each place but this one can be ended from here. */
export function SessionsDialog({ painter, onClose }: { painter: Profile; onClose: () => void }) {
  const queries = useQueryClient();
  const sessions = useQuery(sessionsQuery);
  const end = useMutation({
    mutationFn: (id: number) =>
      answer(client.DELETE("/api/sessions/{id}", { params: { path: { id } } })),
    onSuccess: (left) => queries.setQueryData(sessionsQuery.queryKey, left),
  });
  const problem = end.error ?? sessions.error;
  return (
    <Dialog
      open
      onClose={onClose}
      aria-labelledby="signed-in"
      slotProps={{ paper: { sx: { border: `1px solid ${grey.ink}`, width: 520 } } }}
    >
      <Box sx={{ p: 3 }}>
        <Typography variant="h3" id="signed-in" sx={{ mb: 1.5, overflowWrap: "anywhere" }}>
          Where {painter.name} is painting
        </Typography>
        {sessions.data?.map((s) => (
          <Entry
            key={s.id}
            name={s.device || "another program"}
            says={
              <>
                {s.atHome && "over the network at home, "}since{" "}
                {dayAndTime.format(new Date(s.since))}
                {s.here ? "" : `, last used ${dayAndTime.format(new Date(s.seen))}`}
              </>
            }
          >
            {s.here ? (
              <Typography sx={{ color: grey.second }}>here</Typography>
            ) : (
              <Button
                variant="outlined"
                color="inherit"
                aria-label={`sign out ${s.device}`}
                disabled={end.isPending}
                onClick={() => end.mutate(s.id)}
              >
                sign out
              </Button>
            )}
          </Entry>
        ))}
        {problem && (
          <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
            {problem.message}
          </Typography>
        )}
        <Box sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 2 }}>
          <Button color="inherit" onClick={onClose} sx={{ ml: -1.5 }}>
            close
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}
