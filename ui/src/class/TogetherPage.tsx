import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState, type ReactNode } from "react";
import type { Schemas } from "../api/client";
import {
  forget,
  hearTeacher,
  isOver,
  join,
  keep,
  keptOf,
  passes,
  sayGuess,
  scoreQuery,
  seatQuery,
  type Seat,
} from "../api/together";
import { Drop, Mark } from "../drawing/Marks";
import { Swatch } from "../drawing/Swatch";
import { grey } from "../drawing/style";
import { mudWords, MudTrack, whole, type Expecting } from "../parts/Expect";
import { Waiting } from "../parts/Waiting";
import { drops, GuessDisk } from "./GuessDisk";
import { Stepper } from "./Stepper";
import { DropsSaid, ItIs, MudSaid } from "./Told";

/** Where a pupil predicts along: by the address of a round, or its code. */
export function TogetherPage() {
  const [at, setAt] = useState(() => window.location.hash.slice(1));
  useEffect(() => {
    const other = () => setAt(window.location.hash.slice(1));
    window.addEventListener("hashchange", other);
    return () => window.removeEventListener("hashchange", other);
  }, []);
  const coming = useMutation({
    mutationFn: join,
    // Whoever typed the code is in again when the page is opened anew.
    onSuccess: (token) => window.history.replaceState(null, "", `#${token}`),
    retry: (_, why) => passes(why),
    retryDelay: 1000,
  });
  const { mutate } = coming;
  useEffect(() => {
    if (at) mutate(at);
  }, [at, mutate]);
  const token = coming.data;
  return (
    <Box component="main" sx={{ maxWidth: 560, mx: "auto", p: "12px 16px 24px" }}>
      {token ? (
        <InRound key={token} token={token} />
      ) : at && !coming.isError ? (
        <Waiting failing={coming.failureCount > 0} />
      ) : at && isOver(coming.error) ? (
        <Over why={coming.error} />
      ) : (
        <Door
          busy={coming.isPending}
          problem={coming.error?.message}
          onCode={(code) => mutate(code)}
        />
      )}
    </Box>
  );
}

function Over({ why }: { why: Error | null }) {
  return (
    <Typography role="alert" sx={{ mt: 8, textAlign: "center", fontSize: 18 }}>
      {why?.message}
    </Typography>
  );
}

/** Where the code is typed that stands on the wall. */
function Door({
  busy,
  problem,
  onCode,
}: {
  busy: boolean;
  problem: string | undefined;
  onCode: (code: string) => void;
}) {
  const [code, setCode] = useState("");
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        onCode(code);
      }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, my: 3 }}>
        <Mark size={34} />
        <Typography variant="h2" component="h1">
          Predict along
        </Typography>
      </Box>
      <Typography sx={{ mb: 2 }}>
        Type the six letters that stand on the wall. You need no name: nobody is told who guessed
        what.
      </Typography>
      <TextField
        label="letters on the wall"
        value={code}
        onChange={(e) => setCode(e.target.value.toUpperCase())}
        fullWidth
        autoFocus
        autoComplete="off"
        slotProps={{
          htmlInput: { maxLength: 12, style: { fontSize: 24, letterSpacing: "0.2em" } },
        }}
      />
      <Button
        type="submit"
        variant="contained"
        size="large"
        fullWidth
        sx={{ mt: 2, minHeight: 56 }}
        disabled={busy || !code.trim()}
      >
        come in
      </Button>
      {problem && (
        <Typography role="alert" sx={{ mt: 2, fontWeight: 500 }}>
          {problem}
        </Typography>
      )}
    </Box>
  );
}

function InRound({ token }: { token: string }) {
  const [pupil] = useState(() => keptOf(token)!.pupil);
  const seat = useQuery(seatQuery(pupil));
  const over = isOver(seat.error);
  useEffect(() => (over ? forget(token) : hearTeacher(pupil)), [pupil, token, over]);
  if (over) return <Over why={seat.error} />;
  if (!seat.data) return <Waiting failing={seat.failureCount > 0} />;
  const { face } = seat.data;
  if (!face)
    return (
      <Box sx={{ textAlign: "center", mt: 8 }}>
        <Mark size={46} />
        <Typography variant="h2" sx={{ mt: 2 }}>
          It has not begun yet
        </Typography>
        <Typography sx={{ mt: 1 }}>Leave this page open: the first pairing comes here.</Typography>
      </Box>
    );
  return <Asked key={seat.data.place} token={token} pupil={pupil} seat={seat.data} face={face} />;
}

/** One pairing: what is expected of it is said and, once the cover is lifted, what it is. */
function Asked({
  token,
  pupil,
  seat,
  face,
}: {
  token: string;
  pupil: string;
  seat: Seat;
  face: Schemas["ClassFace"];
}) {
  const [draft, setDraft] = useState<Expecting>(
    () => seat.said ?? keptOf(token)?.said[seat.place] ?? {},
  );
  const [sent, setSent] = useState<Schemas["Expected"] | undefined>(
    () => seat.said ?? keptOf(token)?.said[seat.place],
  );
  const say = useMutation({
    mutationFn: (said: Schemas["Expected"]) => sayGuess(pupil, seat.place, said),
    retry: (_, why) => passes(why),
    retryDelay: 1000,
    onSuccess: (_, said) => {
      setSent(said);
      keep(token, { pupil, said: { ...keptOf(token)?.said, [seat.place]: said } });
    },
  });
  const both = `${face.a.name} with ${face.b.name}`;
  const ready = whole(draft);
  const changed = ready && JSON.stringify(ready) !== JSON.stringify(sent);
  const { truth, lifted, tally } = seat;
  const told = truth && lifted && tally ? { truth, lifted, tally } : null;
  const score = useQuery({ ...scoreQuery(pupil, seat.place, sent), enabled: !!told && !!sent });
  return (
    <Box component="section" aria-label={told ? "the cover is lifted" : "what do you expect?"}>
      <Typography sx={{ color: grey.third }}>
        {seat.place + 1} of {seat.of}
        {seat.called && ` · ${seat.called}`}
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1, mt: 0.5 }}>
        {[face.a, face.b].map((p) => (
          <Paint key={p.id} of={p} />
        ))}
      </Box>
      <Box sx={{ height: "min(88vw, 420px)", mx: -1 }}>
        <GuessDisk
          hues={seat.hues}
          face={face}
          value={told ? (sent ?? {}) : draft}
          onSet={told ? undefined : setDraft}
          {...told}
        />
      </Box>
      {told ? (
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <Typography sx={{ fontSize: 17, lineHeight: "24px" }}>
            <ItIs truth={told.truth} from={face.a.name} to={face.b.name} />
          </Typography>
          {sent ? (
            <Typography
              aria-label="what you said"
              sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}
            >
              You said {sent.hueWord}, {sent.verdict},{" "}
              {mudWords(sent.mud, face.a.name, face.b.name)}:{" "}
              <b>{score.data && `${score.data.right} of 3`}</b>
            </Typography>
          ) : (
            <Typography>You said nothing of this one.</Typography>
          )}
          <MudSaid {...told} band={told.lifted.band} height={56} said={sent?.mud} />
          <DropsSaid {...told} />
          <Typography sx={{ color: grey.second }}>{told.lifted.because}</Typography>
        </Box>
      ) : (
        <>
          <Typography variant="caption" component="p" sx={{ textAlign: "center" }}>
            Press where it will land: round for the hue, toward the rim the brighter it stays.
          </Typography>
          <Stepper
            label="which hue?"
            of={seat.hues}
            value={draft.hueWord}
            onSet={(hueWord) => setDraft({ ...draft, hueWord })}
          />
          <Stepper
            label="how bright?"
            of={drops}
            value={draft.verdict}
            onSet={(verdict) => setDraft({ ...draft, verdict })}
            mark={draft.verdict && <Drop verdict={draft.verdict} height={22} />}
          />
          <Box sx={{ my: 1 }}>
            <MudTrack
              of={both}
              from={face.a.undertone}
              to={face.b.undertone}
              value={draft}
              onSet={setDraft}
              height={56}
            />
          </Box>
          <Button
            variant="contained"
            size="large"
            fullWidth
            sx={{ minHeight: 56 }}
            disabled={!changed || say.isPending}
            onClick={() => say.mutate(ready!)}
          >
            {sent ? "say this instead" : "that is what I expect"}
          </Button>
          <Note>
            {say.isPending && say.failureCount > 0
              ? "No connection just now. It is kept here and goes as soon as it can."
              : sent && !changed
                ? "It is in. You can change it until the cover is lifted."
                : ""}
          </Note>
        </>
      )}
      {say.error && (
        <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
          {say.error.message}
        </Typography>
      )}
    </Box>
  );
}

function Note({ children }: { children: ReactNode }) {
  return (
    <Typography role="status" sx={{ mt: 1, minHeight: 20 }}>
      {children}
    </Typography>
  );
}

function Paint({ of }: { of: Schemas["ClassPaint"] }) {
  return (
    <Box>
      <Swatch colour={of.masstone} height={26} />
      <Typography sx={{ fontWeight: 500, lineHeight: "19px", overflowWrap: "anywhere" }}>
        {of.name}
      </Typography>
    </Box>
  );
}
