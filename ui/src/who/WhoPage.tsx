import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type FormEvent, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Profile, type Schemas, type Settings } from "../api/client";
import { paintersQuery, sessionQuery } from "../api/queries";
import { letGoOf, nameHere, outbox } from "../api/waiting";
import { waitedFile, waitedName } from "../api/waitingFile";
import { grey } from "../drawing/style";
import { saveAs } from "../parts/saveAs";
import { useOutbox } from "../parts/useUnsaved";
import { Mark } from "../drawing/Marks";
import { plainSettings } from "../parts/choices";
import { setMeasureOf } from "../parts/useMeasure";
import { parted, TubesField, type Sold } from "./Tubes";

type Session = Schemas["Session"];
type SignIn = { painter?: number; name?: string; passphrase?: string };

/** Somebody new, and what stands on their tubes. */
type Beginning = { who: { name: string; passphrase?: string }; names: string[]; sold: Sold };

function useEnter() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const made = useRef<Session>(undefined);
  const signIn = (body: SignIn) => answer(client.POST("/api/session", { body }));
  /** Everything is made before anybody is seen to be here: then the wheel is, too. */
  const begin = async ({ who, names, sold }: Beginning) => {
    // What nothing is called is told before somebody is made.
    for (const words of names) {
      const named = await answer(
        client.GET("/api/names", { params: { query: { words: words.slice(0, 80), sold } } }),
      );
      if (named.found.length === 0) throw new Error(named.says);
    }
    // Once made they stay, also where what follows fails and is tried again.
    const session = (made.current ??= await answer(client.POST("/api/painters", { body: who })));
    if (names.length === 0) return { session };
    // Pans are watercolour, and mixed by looks.
    const settings: Settings =
      sold === "pans" ? { ...plainSettings, medium: "watercolour" } : plainSettings;
    if (sold === "pans") setMeasureOf("watercolour", "looks");
    const { medium, light, judged } = settings;
    await answer(
      client.POST("/api/box/named", {
        params: { query: { medium, light, judged } },
        body: { names, sold },
      }),
    );
    const own = await answer(client.GET("/api/system/of-box"));
    if (!own.wheel) return { session, to: "/box" };
    const wheel = await answer(
      client.POST("/api/wheels", {
        body: { name: "First wheel", system: own.own, settings },
      }),
    );
    return { session, to: `/wheel/${wheel.id}` };
  };
  return {
    signIn: useMutation({
      mutationFn: signIn,
      onSuccess: (session) => queries.setQueryData(sessionQuery.queryKey, session),
    }),
    begin: useMutation({
      mutationFn: begin,
      onSuccess: ({ session, to }) => {
        if (to) void navigate(to);
        queries.setQueryData(sessionQuery.queryKey, session);
      },
    }),
  };
}

export function WhoPage({
  listener,
  gone,
  figure,
}: {
  listener: Session["listener"];
  /** Who was signed in here, where all that was theirs was deleted since. */
  gone: number | undefined;
  figure: ReactNode;
}) {
  return (
    <Box
      component="main"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 500px) minmax(0, 1fr)" },
        columnGap: 8,
        maxWidth: 1280,
        mx: "auto",
        p: { xs: "24px 16px", md: "48px 32px 32px 64px" },
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
          <Mark size={34} />
          <Typography sx={{ fontSize: 22, fontWeight: 600 }}>Gyrophane</Typography>
        </Box>
        <Typography variant="h1" component="h1" sx={{ mt: 4 }}>
          Know the wheel before you paint it
        </Typography>
        <Typography variant="subtitle1" sx={{ mt: 2, color: grey.second }}>
          Your tubes, twelve steps: how much of each, what stays clean, what turns to mud, and why.
          Then paint it, and let it learn your tubes.
        </Typography>
        <WaitingForThem gone={gone} />
        {listener === "loopback" ? <Locals /> : <Strangers listener={listener} />}
      </Box>
      <Box sx={{ minWidth: 0, mt: { xs: 4, md: 0 } }}>{figure}</Box>
    </Box>
  );
}

/** What waits in this browser for painters who are not signed in. */
function WaitingForThem({ gone }: { gone: number | undefined }) {
  "use no memo"; // what is drawn lies in the browser's storage
  useOutbox();
  return [...outbox.waitingFor()].map(([id, n]) =>
    id === gone ? (
      <WaitedForNobody key={id} id={id} n={n} />
    ) : (
      <Typography key={id} role="status" sx={{ mb: 2 }}>
        {n} {n === 1 ? "thing" : "things"} of {nameHere(id)} {n === 1 ? "waits" : "wait"} here, and{" "}
        {n === 1 ? "is" : "are"} sent when {nameHere(id)} is back.
      </Typography>
    ),
  );
}

/** What waited here for a painter who was deleted elsewhere: it can be saved, or let go. */
function WaitedForNobody({ id, n }: { id: number; n: number }) {
  return (
    <Box role="status" sx={{ mb: 2 }}>
      <Typography>
        All that was {nameHere(id)}’s was deleted on another device. {n}{" "}
        {n === 1 ? "thing" : "things"} that waited here {n === 1 ? "was" : "were"} put aside.
      </Typography>
      <Button
        color="inherit"
        sx={{ ml: -1 }}
        onClick={() =>
          saveAs(waitedFile({ id, name: nameHere(id), since: "" }, outbox.heldFor(id)), waitedName)
        }
      >
        save as a file
      </Button>
      <Button color="inherit" onClick={() => letGoOf(id)}>
        let go
      </Button>
    </Box>
  );
}

/** On one's own machine painters are offered by name. */
function Locals() {
  const painters = useQuery(paintersQuery);
  const [asked, setAsked] = useState<number | null>(null);
  const { signIn, begin } = useEnter();
  const choose = (p: Profile) => (p.passphrase ? setAsked(p.id) : signIn.mutate({ painter: p.id }));
  const demo = painters.data?.find((p) => p.demo);
  const known = asked === null ? undefined : painters.data?.find((p) => p.id === asked);
  return (
    <>
      {demo && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 2, mt: 3 }}>
          <Button
            variant="contained"
            size="large"
            onClick={() => choose(demo)}
            sx={{ minHeight: 60, px: 6, fontSize: 19, flex: "none" }}
          >
            look around
          </Button>
          <Typography variant="caption">a made-up studio, nothing to fill in</Typography>
        </Box>
      )}
      <NewPainter
        onBegin={begin.mutate}
        error={begin.error}
        busy={begin.isPending}
        needsPassphrase={false}
        first={!demo}
      />
      {!!painters.data?.length && (
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", gap: 2, mt: 4 }}>
          <Typography variant="caption">known here:</Typography>
          {painters.data.map((p) => (
            <ButtonBase
              key={p.id}
              onClick={() => choose(p)}
              title={p.passphrase ? "asks for a passphrase" : undefined}
              sx={{
                fontSize: 15,
                fontWeight: 600,
                minHeight: 40,
                overflowWrap: "anywhere",
                textAlign: "left",
                "&:hover": { bgcolor: grey.track },
              }}
            >
              {p.name}
            </ButtonBase>
          ))}
        </Box>
      )}
      {known && (
        <PassphraseForm
          label={`passphrase of ${known.name}`}
          onSubmit={(passphrase) => signIn.mutate({ painter: known.id, passphrase })}
        />
      )}
      <Problem error={signIn.error} />
    </>
  );
}

/** Beyond one's own machine nobody is listed, and passphrases are asked. */
function Strangers({ listener }: { listener: Session["listener"] }) {
  const { signIn, begin } = useEnter();
  const [name, setName] = useState("");
  return (
    <>
      <Box sx={{ mt: 3 }}>
        <Typography variant="caption">somebody known here</Typography>
        <TextField
          label="your name"
          value={name}
          onChange={(e) => setName(e.target.value)}
          fullWidth
          margin="normal"
        />
        <PassphraseForm
          label="passphrase"
          onSubmit={(passphrase) => signIn.mutate({ name, passphrase })}
        />
        <Problem error={signIn.error} />
      </Box>
      {listener === "home" ? (
        <Typography sx={{ mt: 2 }}>
          Without a passphrase: at the desk choose “open this on my phone” in your menu, and point
          this device’s camera at the picture there.
        </Typography>
      ) : (
        <NewPainter
          onBegin={begin.mutate}
          error={begin.error}
          busy={begin.isPending}
          needsPassphrase
          first={false}
        />
      )}
    </>
  );
}

function PassphraseForm({
  label,
  onSubmit,
}: {
  label: string;
  onSubmit: (passphrase: string) => void;
}) {
  const [passphrase, setPassphrase] = useState("");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    onSubmit(passphrase);
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      sx={{ display: "flex", gap: 2, alignItems: "center", pb: 2 }}
    >
      <TextField
        type="password"
        label={label}
        value={passphrase}
        autoComplete="current-password"
        onChange={(e) => setPassphrase(e.target.value)}
        fullWidth
      />
      <Button type="submit" variant="outlined" size="large" sx={{ flex: "none" }}>
        come in
      </Button>
    </Box>
  );
}

/** Somebody new, with the tubes they have or with none yet. */
function NewPainter({
  onBegin,
  error,
  busy,
  needsPassphrase,
  first,
}: {
  onBegin: (body: Beginning) => void;
  error: Error | null;
  busy: boolean;
  needsPassphrase: boolean;
  /** It is what most do here: the filled button is its. */
  first: boolean;
}) {
  const [name, setName] = useState("");
  const [tubes, setTubes] = useState("");
  const [sold, setSold] = useState<Sold>("artists");
  const [locked, setLocked] = useState(needsPassphrase);
  const [passphrase, setPassphrase] = useState("");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const names = parted(tubes);
    const called = name.trim() || (names.length > 0 ? "My tubes" : "");
    onBegin({ who: { name: called, ...(locked && { passphrase }) }, names, sold });
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ mt: 4 }}>
      <Typography
        variant="h3"
        component="h2"
        sx={{ borderBottom: `2px solid ${grey.ink}`, pb: 0.5, mb: 2 }}
      >
        {first ? "With your own tubes" : "or with your own tubes"}
      </Typography>
      <TubesField
        text={tubes}
        sold={sold}
        onText={(text, as) => {
          setTubes(text);
          setSold(as);
        }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, alignItems: "center", mt: 2 }}>
        <TextField
          label="your name"
          value={name}
          onChange={(e) => setName(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 80, autoComplete: "off" } }}
          sx={{ flex: "1 1 180px" }}
        />
        <Button
          type="submit"
          variant={first ? "contained" : "outlined"}
          size="large"
          disabled={busy}
          sx={{ minHeight: 52 }}
        >
          begin
        </Button>
        {!needsPassphrase && (
          <Button color="inherit" onClick={() => setLocked(!locked)}>
            {locked ? "without a passphrase" : "with a passphrase"}
          </Button>
        )}
        {locked && (
          <TextField
            type="password"
            label="a passphrase of 8 characters or more"
            value={passphrase}
            autoComplete="new-password"
            onChange={(e) => setPassphrase(e.target.value)}
            fullWidth
          />
        )}
      </Box>
      <Problem error={error} />
    </Box>
  );
}

function Problem({ error }: { error: Error | null }) {
  if (!error) return null;
  return (
    <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
      {error.message}
    </Typography>
  );
}
