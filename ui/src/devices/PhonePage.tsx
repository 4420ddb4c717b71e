import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { useCallback, useEffect, useState, type ReactNode } from "react";
import { useLocation } from "react-router";
import { answer, client, type Profile, type Schemas } from "../api/client";
import { deviceCodeQuery, accessQuery } from "../api/queries";
import { useServerNow } from "../api/serverClock";
import { PassphraseDialog } from "../app/PassphraseDialog";
import { SessionsDialog } from "../app/SessionsDialog";
import { Shell } from "../app/Shell";
import { figures } from "../drawing/style";
import { Waiting } from "../parts/Waiting";
import { Install } from "./Install";
import { TakeIn } from "./TakeIn";
import { wayOf, WhatWorks } from "./WhatWorks";

/** "open this on my phone": a code for one more device, who asks with it, and what works there. */
export function PhonePage({ painter }: { painter: Profile }) {
  const { state } = useLocation() as { state: { to?: string } | null };
  const access = useQuery(accessQuery);
  const [sessions, setSessions] = useState(false);
  const address =
    access.data?.listener === "loopback" ? access.data.home.address : window.location.origin;
  const code = useCode(painter, !!address);
  return (
    <Shell painter={painter} title="On my phone">
      {!access.data ? (
        <Waiting failing={access.failureCount > 0} />
      ) : (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 380px) minmax(0, 1fr)" },
            columnGap: 7,
            rowGap: 4,
            maxWidth: 1160,
          }}
        >
          <Box>
            <Typography variant="h2" sx={{ mb: 1.5 }}>
              Open this on my phone
            </Typography>
            {address ? (
              <LettingIn
                painter={painter}
                code={code}
                address={address}
                to={state?.to ?? "/"}
                onSessions={() => setSessions(true)}
              />
            ) : (
              <NotAtHome />
            )}
          </Box>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: "minmax(0, 1fr)",
              rowGap: 3,
              alignContent: "start",
            }}
          >
            <WhatWorks way={address ? wayOf(access.data) : null} />
            {access.data.home.authority && <Install home={access.data.home} />}
            <TakeIn painter={painter} />
          </Box>
        </Box>
      )}
      {sessions && <SessionsDialog painter={painter} onClose={() => setSessions(false)} />}
    </Shell>
  );
}

function NotAtHome() {
  return (
    <>
      <Typography>
        Gyrophane listens on this machine alone just now. Start it so that the devices of your own
        network reach it, and come back here:
      </Typography>
      <Box
        component="pre"
        sx={{ fontFamily: figures, fontSize: 15, my: 2, whiteSpace: "pre-wrap" }}
      >
        {"GYROPHANE_FLAGS=--lan make demo\n\ngyrophane serve --lan"}
      </Box>
      <Typography>
        Nobody is listed there, and nothing is open but signing in with a passphrase and coming in
        with a code that you answer here.
      </Typography>
    </>
  );
}

type Made = Schemas["NewDeviceCode"];

/** A code and what has become of it; it is taken back when the page is left. */
function useCode(painter: Profile, reached: boolean) {
  const [said, setSaid] = useState(false);
  const agreed = said || painter.passphrase;
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () =>
      answer(client.POST("/api/devices/code", { body: { reachable: !painter.passphrase } })),
    onSuccess: () =>
      queries.setQueryData(deviceCodeQuery.queryKey, { code: "open", device: "", check: "" }),
  });
  const asked = useQuery({ ...deviceCodeQuery, enabled: !!make.data, refetchInterval: 1000 });
  const letIn = useMutation({
    mutationFn: ({ check, yes }: { check: string; yes: boolean }) =>
      answer(client.POST("/api/devices/answer", { body: { check, letIn: yes } })),
    onSettled: () => void asked.refetch(),
  });
  const { mutate } = make;
  const { reset } = letIn;
  const again = useCallback(() => {
    reset();
    mutate();
  }, [mutate, reset]);
  const wanted = agreed && reached;
  useEffect(() => {
    if (!wanted) return;
    again();
    return () => void client.DELETE("/api/devices/code");
  }, [wanted, again]);
  return { agreed, agree: () => setSaid(true), make, asked, letIn, again };
}

function LettingIn({
  painter,
  code: { agreed, agree, make, asked, letIn, again },
  address,
  to,
  onSessions,
}: {
  painter: Profile;
  code: ReturnType<typeof useCode>;
  address: string;
  to: string;
  onSessions: () => void;
}) {
  const [locking, setLocking] = useState(false);
  if (!agreed)
    return (
      <>
        <Typography>
          {painter.demo ? "The demo studio has" : "You have"} no passphrase. Whoever holds a phone
          that was let in reaches {painter.demo ? "it" : "all that is yours"}, until it is signed
          out here.
        </Typography>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 2 }}>
          <Button variant="contained" size="large" onClick={agree}>
            yes, show a code
          </Button>
          {!painter.demo && (
            <Button color="inherit" onClick={() => setLocking(true)}>
              take a passphrase first
            </Button>
          )}
        </Box>
        {locking && <PassphraseDialog painter={painter} onClose={() => setLocking(false)} />}
      </>
    );
  if (letIn.isSuccess)
    return (
      <After onAgain={again}>
        {letIn.variables.yes
          ? "It is in, and opens what you were looking at."
          : "It was sent away."}{" "}
        {letIn.variables.yes && (
          <Button color="inherit" onClick={onSessions}>
            where I am signed in
          </Button>
        )}
      </After>
    );
  const problem = make.error ?? letIn.error;
  if (problem) return <After onAgain={again}>{problem.message}</After>;
  if (!make.data || !asked.data) return <Waiting failing={asked.failureCount > 0} />;
  const { code: stage, device, check } = asked.data;
  if (stage === "asks")
    return (
      <Box role="status">
        <Typography variant="h3">{device} would like to come in.</Typography>
        <Typography sx={{ mt: 1 }}>
          Let it in only if it is in your hand and shows this number:
        </Typography>
        <Box sx={{ fontFamily: figures, fontSize: 64, lineHeight: "80px", my: 1 }}>{check}</Box>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2 }}>
          <Button
            variant="contained"
            size="large"
            disabled={letIn.isPending}
            onClick={() => letIn.mutate({ check, yes: true })}
          >
            let it in
          </Button>
          <Button
            color="inherit"
            disabled={letIn.isPending}
            onClick={() => letIn.mutate({ check, yes: false })}
          >
            send it away
          </Button>
        </Box>
      </Box>
    );
  if (stage === "none")
    return (
      <After onAgain={again}>
        The code is good no more: its two minutes are over, a phone that was in already has used it,
        or another one was made.
      </After>
    );
  return <Code made={make.data} address={address} to={to} />;
}

function After({ onAgain, children }: { onAgain: () => void; children: ReactNode }) {
  return (
    <>
      <Typography role="status">{children}</Typography>
      <Button variant="outlined" size="large" onClick={onAgain} sx={{ mt: 2 }}>
        another code
      </Button>
    </>
  );
}

/** Every module of the picture is whole pixels wide: version 8 has 49 of them. */
const version = 8;
const side = 6 * 49; // px, some 8 cm on most screens
const quiet = 20; // px of white around it

/** The code as a picture. It stands in the address's fragment, which no server is told. */
function Code({ made, address, to }: { made: Made; address: string; to: string }) {
  const over = (Date.parse(made.until) - useServerNow()) / 1000;
  const left = Math.min(120, Math.max(0, Math.ceil(over))); // the clock ticks by seconds
  return (
    <>
      {/* Paper white in every surround: cameras want dark on light. */}
      <Box sx={{ width: side + 2 * quiet, bgcolor: "#fff", p: `${quiet}px` }}>
        <QRCodeSVG
          value={`${address}/come-in#${made.code}${to}`}
          size={side}
          minVersion={version}
          style={{ display: "block" }}
          title="a picture for the phone’s camera"
          level="M"
        />
      </Box>
      <Typography sx={{ mt: 1.5 }}>
        Join the phone to the network of this machine, point its camera at the picture, and press{" "}
        <b>come in</b> there. Then you say here whether it may.
      </Typography>
      <Typography sx={{ mt: 1, fontFamily: figures, fontSize: 15 }}>{address}</Typography>
      <Typography variant="caption" component="p" sx={{ mt: 0.5 }}>
        Good once, and for {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}.
      </Typography>
    </>
  );
}
