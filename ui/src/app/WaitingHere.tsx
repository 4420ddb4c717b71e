import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useEffect } from "react";
import { countOf, type Entry } from "../api/outbox";
import { queryClient, sessionQuery } from "../api/queries";
import { outbox } from "../api/waiting";
import { waitedFile, waitedName } from "../api/waitingFile";
import { saveAs } from "../parts/saveAs";
import { useOutbox } from "../parts/useUnsaved";

/** Saves what waits, and what was put aside, as a file of JSON. */
function saveAsFile() {
  const { lines, painter } = outbox.get();
  const here = queryClient.getQueryData(sessionQuery.queryKey)?.painter;
  if (here?.id !== painter) return; // nobody is, for the moment
  saveAs(waitedFile(here, lines), waitedName);
}

/** What was put aside of all things, what one tap told as one. */
function asideOf(lines: ReturnType<typeof useOutbox>["lines"]) {
  return Object.entries(lines).flatMap(([thing, { aside }]) => {
    const groups = new Map<string, Entry>();
    for (const e of aside) groups.set(e.group ?? e.id, e);
    return [...groups.values()].map((entry) => ({ thing, entry }));
  });
}

const sentence = (says: string) =>
  says.charAt(0).toUpperCase() + says.slice(1) + (/[.!?]$/.test(says) ? "" : ".");

const shown = 3;

/** What the server refused, named, until the painter has said what becomes of it. */
export function Aside() {
  const { lines } = useOutbox();
  const all = asideOf(lines);
  if (all.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="put aside"
      sx={{ borderBottom: 1, p: "10px 24px 10px 116px", display: "grid", rowGap: 1 }}
    >
      {all.slice(0, shown).map(({ thing, entry }) => (
        <Box
          key={thing + entry.id}
          sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1 }}
        >
          <Typography variant="body2" sx={{ flex: "1 1 320px", overflowWrap: "anywhere" }}>
            <b>Not kept: {entry.says}.</b> {sentence(entry.why ?? "")}
          </Typography>
          <Button color="inherit" onClick={() => void outbox.again(thing, entry.id)}>
            send it again
          </Button>
          <Button color="inherit" onClick={saveAsFile}>
            save it as a file
          </Button>
          <Button color="inherit" onClick={() => outbox.letGo(thing, entry.id)}>
            let it go
          </Button>
        </Box>
      ))}
      {all.length > shown && (
        <Typography variant="caption">and {all.length - shown} more</Typography>
      )}
    </Box>
  );
}

/** What waits can be saved while the server does not answer: it may be back under another address. */
export function SaveWaiting() {
  const { waiting } = countOf(useOutbox().lines);
  if (waiting === 0) return null;
  return (
    <Button color="inherit" variant="outlined" onClick={saveAsFile}>
      save {things(waiting)} as a file
    </Button>
  );
}

const things = (n: number) => `${n} ${n === 1 ? "thing" : "things"}`;

/** Asks what becomes of what waits before somebody else paints; leaves at once when nothing does. */
export function BeforeLeaving({ onLeave, onStay }: { onLeave: () => void; onStay: () => void }) {
  const { lines, lost } = useOutbox();
  const { waiting, aside } = countOf(lines);
  const none = Object.keys(lines).length === 0;
  useEffect(() => {
    if (none) onLeave();
  }, [none, onLeave]);
  if (none) return null;
  return (
    <Dialog open onClose={onStay}>
      <DialogTitle>Not everything has been kept yet</DialogTitle>
      <DialogContent>
        <Typography>
          {waiting > 0 &&
            `${things(waiting)} of yours ${waiting === 1 ? "waits" : "wait"} to be sent. `}
          {aside > 0 && `${things(aside)} ${aside === 1 ? "was" : "were"} put aside. `}
          {waiting > 0 &&
            (lost
              ? "The server does not answer just now: they are sent when it is back."
              : "They are being sent.")}
        </Typography>
      </DialogContent>
      <DialogActions sx={{ flexWrap: "wrap", rowGap: 1 }}>
        <Button color="inherit" onClick={onStay}>
          stay
        </Button>
        {waiting > 0 && (
          <Button color="inherit" variant="outlined" onClick={() => outbox.wake()}>
            send them now
          </Button>
        )}
        <Button color="inherit" onClick={saveAsFile}>
          save them as a file
        </Button>
        <Button color="inherit" onClick={() => outbox.letAllGo()}>
          let them go
        </Button>
      </DialogActions>
    </Dialog>
  );
}
