import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link as To } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { sittingJournalQuery } from "../api/queries";
import { grey } from "../drawing/style";

type Journal = Schemas["SittingJournal"];

/** What explains all places of a sitting together, to be answered before anything is learned, and what was answered. */
export function Open({ journal }: { journal: Journal }) {
  const queries = useQueryClient();
  const say = useMutation({
    mutationFn: (body: { tube?: string; sure: boolean }) =>
      answer(client.PUT("/api/sittings/{id}/sure", { params: { path: { id: journal.id } }, body })),
    onSuccess: (came) => queries.setQueryData(sittingJournalQuery(journal.id).queryKey, came),
  });
  const { sure } = journal;
  if (journal.bent.length + journal.overall.length + sure.tubes.length === 0 && !sure.light)
    return null;
  return (
    <Box component="section" aria-label="all places together" sx={{ mb: 2 }}>
      {journal.bent.map((says) => (
        <Typography key={says} sx={{ mb: 1 }}>
          {says}
        </Typography>
      ))}
      {journal.overall.map((c) => (
        <Box
          key={`${c.kind} ${c.paint}`}
          sx={{ borderLeft: `4px solid ${grey.ink}`, pl: 1.5, mb: 1.5 }}
        >
          <Typography
            sx={{
              fontWeight: c.open ? 600 : 400,
              "&::first-letter": { textTransform: "uppercase" },
            }}
          >
            {c.says}.
          </Typography>
          {c.open && (
            <>
              <Typography variant="caption" component="p">
                No strengths are offered before this is answered.
              </Typography>
              <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
                {c.kind === "not the tube" && (
                  <>
                    <Button component={To} to="/box" color="inherit" sx={{ px: 0 }}>
                      two swatches in the box
                    </Button>
                    <Button
                      color="inherit"
                      disabled={say.isPending}
                      onClick={() => say.mutate({ tube: c.paint, sure: true })}
                    >
                      it is the tube it says
                    </Button>
                  </>
                )}
                {c.kind === "light" && (
                  <Button
                    color="inherit"
                    sx={{ px: 0 }}
                    disabled={say.isPending}
                    onClick={() => say.mutate({ sure: true })}
                  >
                    it was daylight
                  </Button>
                )}
                <Button
                  component={To}
                  to={`/bench/sitting/${journal.id}/readings`}
                  color="inherit"
                  sx={{ px: 0 }}
                >
                  read it again
                </Button>
              </Box>
            </>
          )}
        </Box>
      ))}
      {sure.light && (
        <Answered
          says="You said that it was daylight."
          onBack={() => say.mutate({ sure: false })}
        />
      )}
      {sure.tubes.map((t) => (
        <Answered
          key={t.paint}
          says={`You said that the ${t.name} is the tube it says.`}
          onBack={() => say.mutate({ tube: t.paint, sure: false })}
        />
      ))}
      {say.error && <Typography role="alert">{say.error.message}</Typography>}
    </Box>
  );
}

function Answered({ says, onBack }: { says: string; onBack: () => void }) {
  return (
    <Typography variant="caption" component="p">
      {says}{" "}
      <Button color="inherit" size="small" onClick={onBack}>
        take that back
      </Button>
    </Typography>
  );
}
