import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { answer, client, type Profile } from "../api/client";
import { paintersQuery, sessionQuery } from "../api/queries";
import { nameHere, outbox } from "../api/waiting";
import { grey } from "../drawing/style";
import { useOutbox } from "../parts/useUnsaved";
import { Mark } from "../drawing/Marks";

type SignIn = { painter?: number; name?: string; passphrase?: string };

function useEnter() {
  const queries = useQueryClient();
  const entered = (session: Awaited<ReturnType<typeof signIn>>) =>
    queries.setQueryData(sessionQuery.queryKey, session);
  const signIn = (body: SignIn) => answer(client.POST("/api/session", { body }));
  const begin = (body: { name: string; passphrase?: string }) =>
    answer(client.POST("/api/painters", { body }));
  return {
    signIn: useMutation({ mutationFn: signIn, onSuccess: entered }),
    begin: useMutation({ mutationFn: begin, onSuccess: entered }),
  };
}

export function WhoPage({ local }: { local: boolean }) {
  return (
    <Box component="main" sx={{ maxWidth: 880, mx: "auto", p: "56px 32px" }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
        <Mark size={34} />
        <Typography sx={{ fontSize: 22, fontWeight: 600 }}>Gyrophane</Typography>
      </Box>
      <Typography variant="subtitle1" sx={{ mt: 2, maxWidth: 620, color: grey.second }}>
        Builds the twelve-step colour wheel of your three paints: how much of each, which mixtures
        stay clean, and why some turn to mud.
      </Typography>
      <Typography variant="h1" component="h1" sx={{ mt: 5, mb: 3 }}>
        Who is painting?
      </Typography>
      <WaitingForThem />
      {local ? <Locals /> : <Strangers />}
    </Box>
  );
}

/** What waits in this browser for painters who are not signed in. */
function WaitingForThem() {
  useOutbox();
  return [...outbox.waitingFor()].map(([id, n]) => (
    <Typography key={id} role="status" sx={{ mb: 2 }}>
      {n} {n === 1 ? "thing" : "things"} of {nameHere(id)} {n === 1 ? "waits" : "wait"} here, and{" "}
      {n === 1 ? "is" : "are"} sent when {nameHere(id)} is back.
    </Typography>
  ));
}

/** On one's own machine painters are offered by name. */
function Locals() {
  const painters = useQuery(paintersQuery);
  const [asked, setAsked] = useState<number | null>(null);
  const { signIn, begin } = useEnter();
  const choose = (p: Profile) => (p.passphrase ? setAsked(p.id) : signIn.mutate({ painter: p.id }));
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 6 }}>
      <Box>
        <Typography variant="caption">somebody known here</Typography>
        {painters.data?.map((p) => (
          <Box key={p.id} sx={{ borderTop: `1px solid ${grey.hairline}` }}>
            <ButtonBase
              onClick={() => choose(p)}
              sx={{
                width: 1,
                justifyContent: "flex-start",
                textAlign: "left",
                py: 1.75,
                "&:hover": { bgcolor: grey.track },
              }}
            >
              <Box sx={{ minWidth: 0 }}>
                <Typography
                  variant="h3"
                  component="span"
                  sx={{ display: "block", overflowWrap: "anywhere" }}
                >
                  {p.name}
                </Typography>
                <Typography variant="caption" component="span">
                  {p.demo
                    ? "a made-up studio with wheels to look around in"
                    : p.passphrase
                      ? "asks for a passphrase"
                      : "opens without a passphrase"}
                </Typography>
              </Box>
            </ButtonBase>
            {asked === p.id && (
              <PassphraseForm
                label={`passphrase of ${p.name}`}
                onSubmit={(passphrase) => signIn.mutate({ painter: p.id, passphrase })}
              />
            )}
          </Box>
        ))}
        <Problem error={signIn.error} />
      </Box>
      <NewPainter onBegin={begin.mutate} error={begin.error} needsPassphrase={false} />
    </Box>
  );
}

/** Beyond one's own machine nobody is listed, and passphrases are asked. */
function Strangers() {
  const { signIn, begin } = useEnter();
  const [name, setName] = useState("");
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, gap: 6 }}>
      <Box>
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
      <NewPainter onBegin={begin.mutate} error={begin.error} needsPassphrase />
    </Box>
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

function NewPainter({
  onBegin,
  error,
  needsPassphrase,
}: {
  onBegin: (body: { name: string; passphrase?: string }) => void;
  error: Error | null;
  needsPassphrase: boolean;
}) {
  const [name, setName] = useState("");
  const [locked, setLocked] = useState(needsPassphrase);
  const [passphrase, setPassphrase] = useState("");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    onBegin(locked ? { name, passphrase } : { name });
  };
  return (
    <Box component="form" onSubmit={submit}>
      <Typography variant="caption">somebody new</Typography>
      <Box
        sx={{
          borderTop: `1px solid ${grey.hairline}`,
          pt: 2,
          display: "flex",
          flexDirection: "column",
          gap: 2,
          alignItems: "flex-start",
        }}
      >
        <TextField
          label="your name"
          value={name}
          onChange={(e) => setName(e.target.value)}
          fullWidth
          slotProps={{ htmlInput: { maxLength: 80, autoComplete: "off" } }}
        />
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
        <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
          <Button type="submit" variant="contained" size="large">
            begin
          </Button>
          {!needsPassphrase && (
            <Button color="inherit" onClick={() => setLocked(!locked)}>
              {locked ? "without a passphrase" : "with a passphrase"}
            </Button>
          )}
        </Box>
        <Problem error={error} />
      </Box>
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
