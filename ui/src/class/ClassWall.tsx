import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { useEffect, useState } from "react";
import { Link as To, useParams } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { accessQuery } from "../api/queries";
import {
  classRoundQuery,
  hearClass,
  togetherAt,
  type ClassRound,
  type Pairing,
} from "../api/together";
import { Swatch } from "../drawing/Swatch";
import { figures, grey } from "../drawing/style";
import { useDarkRoom } from "../parts/darkRoom";
import { OnTheWall } from "../parts/OnTheWall";
import { outside } from "../parts/address";
import { useWallKeys } from "../parts/useWallKeys";
import { Waiting } from "../parts/Waiting";
import { GuessDisk } from "./GuessDisk";
import { HandsUp } from "./HandsUp";
import { DropsSaid, ItIs, MudSaid } from "./Told";

/** A round on the wall: what is asked, how many have guessed and, once the cover is lifted, what they said and what is so. */
export function ClassWall() {
  const id = Number(useParams().id);
  useDarkRoom();
  const round = useQuery(classRoundQuery(id));
  useEffect(() => hearClass(id), [id]);
  if (round.error)
    return (
      <Typography role="alert" sx={{ p: 6, fontSize: 22 }}>
        {round.error.message}
      </Typography>
    );
  if (!round.data) return <Waiting failing={round.failureCount > 0} />;
  return <Wall round={round.data} />;
}

type Move = Schemas["ClassMove"];

function Wall({ round }: { round: ClassRound }) {
  const queries = useQueryClient();
  const [counting, setCounting] = useState(false);
  const asked = classRoundQuery(round.id);
  const move = useMutation({
    mutationFn: ({ to, place }: { to: Move; place?: number }) =>
      answer(
        client.POST("/api/class/rounds/{id}/moves", {
          params: { path: { id: round.id } },
          body: { version: round.version, move: to, place },
        }),
      ),
    onSuccess: (now) => queries.setQueryData(asked.queryKey, now),
    onError: () => void queries.invalidateQueries(asked),
  });
  const pairing = round.pairings[round.place]!;
  const last = round.place === round.pairings.length - 1;
  const step = !round.opened
    ? { says: "begin", to: "open" as const, place: undefined }
    : round.ended
      ? null
      : !pairing.truth
        ? { says: "lift the cover", to: "lift" as const, place: undefined }
        : last
          ? { says: "end the round", to: "end" as const, place: undefined }
          : { says: "the next one", to: "go to" as const, place: round.place + 1 };
  const go = (to: Move, place?: number) => {
    if (!move.isPending) move.mutate({ to, place });
  };
  useWallKeys(!counting, {
    // A clicker ends nothing by a press too many.
    onward: () => step && step.to !== "end" && go(step.to, step.place),
    back: () => round.place > 0 && round.open && go("go to", round.place - 1),
    others: { h: () => !pairing.truth && round.open && setCounting(true) },
  });
  return (
    <OnTheWall
      title={`${round.called}, predicted together`}
      keys="space, page keys or a clicker: onward and back · h: hands up · v: squint"
      deeds={
        <>
          {step && (
            <Button
              variant="contained"
              size="large"
              disabled={move.isPending}
              onClick={() => go(step.to, step.place)}
            >
              {step.says}
            </Button>
          )}
          {round.open && round.place > 0 && (
            <Button color="inherit" onClick={() => go("go to", round.place - 1)}>
              the one before
            </Button>
          )}
          {round.open && !pairing.truth && (
            <Button color="inherit" onClick={() => setCounting(!counting)}>
              {counting ? "enough counted" : "count hands"}
            </Button>
          )}
          {round.open && !(step?.to === "end") && (
            <Button color="inherit" onClick={() => go("end")}>
              end the round
            </Button>
          )}
          <Button color="inherit" component={To} to="/class">
            leave the wall
          </Button>
          {move.error && (
            <Typography role="alert" sx={{ width: 1, fontWeight: 500 }}>
              {move.error.message}
            </Typography>
          )}
        </>
      }
    >
      {round.ended ? (
        <Ended round={round} />
      ) : !round.opened ? (
        <Before round={round} />
      ) : (
        <Asking
          round={round}
          pairing={pairing}
          counting={counting}
          onCounted={() => setCounting(false)}
        />
      )}
    </OnTheWall>
  );
}

/** How pupils come in. */
function WayIn({ round, big }: { round: ClassRound; big?: boolean }) {
  const access = useQuery(accessQuery);
  const address = `${outside(access.data)}${togetherAt}`;
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: big ? 4 : 2 }}>
      <Box sx={{ p: big ? 2 : 1, bgcolor: "#fff", lineHeight: 0 }}>
        <QRCodeSVG
          value={`${address}#${round.token}`}
          size={big ? 260 : 104}
          role="img"
          aria-label="the address of the round as a picture"
        />
      </Box>
      <Box>
        <Typography sx={{ fontSize: big ? 22 : 15, lineHeight: 1.5, overflowWrap: "anywhere" }}>
          {address.replace(/^https?:\/\//, "")}
        </Typography>
        {round.code && (
          <Typography
            aria-label="code"
            sx={{
              fontFamily: figures,
              fontSize: big ? 64 : 30,
              lineHeight: 1.3,
              letterSpacing: "0.12em",
            }}
          >
            {round.code}
          </Typography>
        )}
        <Typography sx={{ fontSize: big ? 18 : 14, color: grey.second }}>
          {round.joined === 1 ? "1 phone is" : `${round.joined} phones are`} in
        </Typography>
      </Box>
    </Box>
  );
}

function Before({ round }: { round: ClassRound }) {
  return (
    <Box sx={{ alignSelf: "center", display: "grid", justifyItems: "start", gap: 3 }}>
      <Typography variant="h1" component="h2" sx={{ overflowWrap: "anywhere" }}>
        {round.called}
      </Typography>
      <Typography sx={{ fontSize: 20 }}>
        {round.pairings.length === 1 ? "One pairing" : `${round.pairings.length} pairings`}, each
        under its cover. Point a phone at the picture, or wait for the letters.
      </Typography>
      <WayIn round={round} big />
    </Box>
  );
}

function Asking({
  round,
  pairing,
  counting,
  onCounted,
}: {
  round: ClassRound;
  pairing: Pairing;
  counting: boolean;
  onCounted: () => void;
}) {
  const { face, lifted, truth, tally } = pairing;
  const told = lifted && truth && tally ? { lifted, truth, tally } : null;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        gap: 4,
        alignItems: "center",
      }}
    >
      <Box sx={{ height: { xs: "90vw", md: "calc(100dvh - 130px)" } }}>
        <GuessDisk hues={round.hues} face={face} value={{}} {...told} />
      </Box>
      <Box sx={{ display: "grid", gap: 2.5, alignContent: "center" }}>
        <Box>
          <Typography sx={{ fontSize: 18, color: grey.third }}>
            {round.place + 1} of {round.pairings.length}
            {pairing.called && ` · ${pairing.called}`}
          </Typography>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: `repeat(${told ? 3 : 2}, minmax(0, 1fr))`,
              gap: told ? 0 : 2,
              mt: 1,
            }}
          >
            <Paint name={face.a.name} colour={face.a.masstone} />
            {told && <Paint name="half way" colour={told.lifted.middle} />}
            <Paint name={face.b.name} colour={face.b.masstone} />
          </Box>
        </Box>
        {told ? (
          <>
            <Typography role="status" sx={{ fontSize: 22, lineHeight: "30px" }}>
              <ItIs truth={told.truth} from={face.a.name} to={face.b.name} />
            </Typography>
            <MudSaid {...told} band={told.lifted.band} height={76} />
            <DropsSaid {...told} big />
            <Typography sx={{ fontSize: 16, lineHeight: "23px", color: grey.second }}>
              {told.lifted.because}
            </Typography>
          </>
        ) : counting ? (
          <HandsUp round={round} pairing={pairing} onEnd={onCounted} />
        ) : (
          <>
            <Typography role="status" sx={{ fontSize: 30, lineHeight: "38px" }}>
              {round.guessed} of {round.joined} have guessed
            </Typography>
            <Typography sx={{ fontSize: 18, lineHeight: "26px", color: grey.second }}>
              Which hue will it be half way, how bright will it stay, and where on the way does it
              turn muddy?
            </Typography>
            <WayIn round={round} />
          </>
        )}
      </Box>
    </Box>
  );
}

function Paint({ name, colour }: { name: string; colour: Schemas["Shown"] }) {
  return (
    <Box>
      <Swatch colour={colour} height={64} />
      <Typography sx={{ fontSize: 20, lineHeight: "26px", mt: 0.5, overflowWrap: "anywhere" }}>
        {name}
      </Typography>
    </Box>
  );
}

function Ended({ round }: { round: ClassRound }) {
  const lifted = round.pairings.filter((p) => p.score);
  return (
    <Box sx={{ alignSelf: "center", maxWidth: 900 }}>
      <Typography variant="h1" component="h2" sx={{ mb: 3, overflowWrap: "anywhere" }}>
        {round.called}
      </Typography>
      {lifted.length === 0 && <Typography>No cover was lifted in this round.</Typography>}
      {lifted.map(({ face, truth, score, called }) => (
        <Box
          key={`${face.a.id} ${face.b.id}`}
          sx={{
            borderTop: `1px solid ${grey.hairline}`,
            py: 1.25,
            fontSize: 18,
            lineHeight: "26px",
          }}
        >
          <b>{called || `${face.a.name} with ${face.b.name}`}</b>: {truth!.hueWord},{" "}
          {truth!.couldBe?.join(" or ") ?? truth!.verdict}.{" "}
          <Box component="span" sx={{ color: grey.second }}>
            {score!.hue.right} of {score!.hue.said} saw the hue, {score!.verdict.right} of{" "}
            {score!.verdict.said} how bright, {score!.mud.right} of {score!.mud.said} where the mud
            starts.
          </Box>
        </Box>
      ))}
    </Box>
  );
}
