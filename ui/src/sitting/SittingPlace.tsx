import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useLayoutEffect, useState } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { sendFile, type Profile, type Sitting } from "../api/client";
import { useServerNow } from "../api/serverClock";
import { typing } from "../parts/keys";
import { Missing } from "../app/Missing";
import { Shell } from "../app/Shell";
import { Notice } from "../app/Notice";
import { washes } from "../parts/naming";
import { MayAsk } from "../parts/InTubes";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";
import { OneOf } from "../parts/Choice";
import { Reminder } from "../parts/Reminder";
import { Waiting } from "../parts/Waiting";
import { NextCard, PaintedCard } from "./NextCard";
import { Large, Second, Tap } from "./Pieces";
import { SittingFigure } from "./SittingFigure";
import { SittingHour } from "./SittingHour";
import { leftOf, timeOf, toldOf, type Step } from "./steps";
import { useDrySignal, useInstalled, useScreenAwake } from "./useTable";
import { useMutation } from "@tanstack/react-query";
import { FromBelow } from "../parts/FromBelow";
import { FileButton } from "../parts/FileButton";
import { usePhone } from "../parts/usePhone";
import { AtHand, placeOf } from "../parts/holding";
import { dryWords } from "../parts/whenDry";
import { isLeft, useSitting, type Done } from "./useSitting";

export function SittingPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneSitting key={id} id={id} painter={painter} />;
}

/** A sitting: the one next action, what is wet until when, and the hour. */
function OneSitting({ id, painter }: { id: number; painter: Profile }) {
  const own = useSitting(id);
  const { sitting, tell } = own;
  const now = useServerNow();
  const [chosen, setChosen] = useState(-1);
  const [another, setAnother] = useState(false);
  const { phone } = usePhone();
  const [listed, setListed] = useState(false);
  const [hour, setHour] = useState(false);
  const navigate = useNavigate();
  // The camera is one tap away: what it took is read at once.
  const photograph = useMutation({
    mutationFn: (file: Blob) => sendFile(`sittings/${id}/photo`, file),
    onSuccess: () => navigate(`/bench/sitting/${id}/readings?by=photo`),
  });
  useInstalled(id);
  useScreenAwake(!!sitting && !sitting.ended && !sitting.paused);
  const dry = useDrySignal(sitting, now);

  const say = (...done: Done[]) => {
    // Of a pile that stands mixed the card says what it is and what to do about it, whatever is next.
    const piles = ["mixed", "measured", "tested"];
    const painted = done.some((of) => of.kind === "painted");
    const about = painted ? undefined : done.findLast((of) => piles.includes(of.kind))?.region;
    setChosen(sitting?.plan.regions.findIndex((r) => r.id === about) ?? -1);
    setAnother(false);
    tell(...done);
  };
  // Keys do what they are shown on; typing is left alone. Before the page is seen: a key pressed at once is not lost.
  useLayoutEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (typing(e)) return;
      document
        .querySelector<HTMLElement>(`main [aria-keyshortcuts="${CSS.escape(e.key)}"]`)
        ?.click();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  if (own.query.error && !sitting)
    return (
      <Missing
        painter={painter}
        what="this sitting"
        sentence={own.query.error.message}
        to="/bench"
        back="to the bench"
      />
    );
  if (!sitting) return <Waiting failing={own.query.failureCount > 0} />;

  const { steps } = sitting;
  const [back] = sitting.back;
  // The place that was said last to be wet still, or to be run into.
  const lastSaid = (kind: string) =>
    sitting.ended
      ? -1
      : sitting.plan.regions.findIndex((r) => back?.says === `${kind}: ${r.label}`);
  const [wet, ran] = [lastSaid("still wet"), lastSaid("ran")];
  const first = steps[0];
  const open =
    chosen >= 0 && !isLeft(sitting.places[chosen]!) && sitting.places[chosen]!.coats > 0
      ? chosen
      : -1;
  const instead: Step | undefined =
    chosen >= 0 && open < 0
      ? (sitting.instead.find((s) => s.region === chosen) ??
        steps.find((s) => s.region === chosen) ?? {
          region: chosen,
          before: [],
          tells: sitting.places[chosen]!.tells.filter((t) => t.kind === "painted"),
        })
      : undefined;
  const step = instead ?? first;
  const taking = own.pending > 0;
  const paintedAway = () =>
    say(...(sitting.laid ? [] : [{ kind: "laid out" } as const]), ...toldOf(sitting.asPlanned));
  const whenDry = (
    <OneOf
      label="when a slot is dry"
      bold={false}
      shown={dryWords[dry.by]}
      of={Object.entries(dryWords).map(([value, name]) => ({ value, name }))}
      value={dry.by}
      onChoose={(v) => dry.setBy(v as keyof typeof dryWords)}
    />
  );
  const deeds = (
    <>
      <Button
        component={To}
        to={`/bench/sitting/${id}/readings`}
        color="inherit"
        sx={{ minHeight: 56, px: 1, fontSize: 15 }}
      >
        read what was painted
      </Button>
      {!sitting.ended && (
        <>
          <Tap onClick={() => say({ kind: sitting.paused ? "resumed" : "paused" })}>
            {sitting.paused ? "go on" : "pause"}
          </Tap>
          {sitting.laid && !sitting.paused && first && (
            <Tap disabled={taking} onClick={paintedAway}>
              the rest as planned
            </Tap>
          )}
          <Tap onClick={() => say({ kind: "ended" })}>end</Tap>
        </>
      )}
    </>
  );
  return (
    <Shell
      painter={painter}
      title={`Sitting of ${sitting.name}`}
      open={
        <Typography noWrap sx={{ fontWeight: 500 }}>
          {sitting.name}
        </Typography>
      }
      wet
      beside={
        <Typography variant="caption">
          {sitting.plan.medium} · {sitting.plan.title}
          {sitting.plan.kind === "wheel" && ` of ${sitting.plan.width} mm`}
        </Typography>
      }
      notice={
        <>
          {taking && own.lost && (
            <Notice>
              Out of contact: {own.pending} {own.pending === 1 ? "thing waits" : "things wait"} here
              and {own.pending === 1 ? "is" : "are"} sent in order when the server is back. Go on
              painting.
            </Notice>
          )}
          {own.full && (
            <Notice>
              This browser has no room left to keep what waits: leave the page open until it is
              sent.
            </Notice>
          )}
        </>
      }
    >
      <AtHand
        things={[
          step && {
            name: sitting.plan.regions[step.region]!.label,
            view: sitting.plan,
            row: {
              wheel: sitting.wheel,
              places: [
                placeOf(
                  sitting.plan.regions[step.region]!.label,
                  sitting.plan.regions[step.region]!,
                ),
              ],
            },
          },
        ]}
      />
      {dry.flash && (
        <Box
          aria-hidden
          sx={{
            position: "fixed",
            inset: 0,
            border: `24px solid ${grey.ink}`,
            pointerEvents: "none",
            zIndex: 10,
          }}
        />
      )}
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          alignItems: "center",
          justifyContent: "flex-end",
          columnGap: 1,
          minHeight: 56,
          "& button": { minHeight: 56 },
        }}
      >
        <Typography variant="caption" role="status" sx={{ mr: "auto" }}>
          {taking
            ? own.lost
              ? `${own.pending} waiting`
              : "sending"
            : own.aside
              ? "some put aside"
              : "all kept"}
          {sitting.pace > 1 && ` · dries ${sitting.pace} times as slowly`}
        </Typography>
        {!phone && whenDry}
        <Tap
          keys="z"
          disabled={!back}
          onClick={() => back && say({ kind: "undone", undoes: back.tap })}
        >
          take back{back && !phone && ` (${back.says})`}
        </Tap>
        {phone ? (
          <>
            <FileButton
              label="photo"
              accept="image/png,image/jpeg"
              camera
              onFile={(file) => photograph.mutate(file)}
            />
            <Tap onClick={() => setListed(true)}>pause, end</Tap>
            <FromBelow label="the sitting" open={listed} onClose={() => setListed(false)}>
              {whenDry}
              {deeds}
            </FromBelow>
          </>
        ) : (
          deeds
        )}
      </Box>
      {photograph.error && <Typography role="alert">{photograph.error.message}</Typography>}
      {!sitting.ended && <Reminder wheel={sitting.wheel} but={id} />}
      {wet >= 0 && (
        <Typography role="status">
          {sitting.plan.regions[wet]!.label} is wet until {timeOf(sitting.places[wet]!.dry)} now,
          and what waits for it with it.
        </Typography>
      )}
      {ran >= 0 && (
        <Typography role="status">
          Blot {sitting.plan.regions[ran]!.label} now. It is dry about{" "}
          {timeOf(sitting.places[ran]!.dry)}, and gone over then.
        </Typography>
      )}
      {sitting.says.map((line) => (
        <Typography key={line}>{line}</Typography>
      ))}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 560px" },
          columnGap: 3,
          "& > svg": { maxHeight: { xs: phone ? 236 : 350, md: 430 } },
        }}
      >
        <SittingFigure
          sitting={sitting}
          now={now}
          next={sitting.ended ? -1 : (first?.region ?? -1)}
          chosen={chosen}
          onChoose={(r) => {
            setAnother(false);
            setChosen(r === chosen ? -1 : r);
          }}
        />
        <Box sx={{ minWidth: 0 }}>
          {sitting.ended ? (
            <Ended sitting={sitting} />
          ) : sitting.paused ? (
            <Paused
              sitting={sitting}
              now={now}
              onResume={(empty) => say({ kind: "resumed" }, ...empty)}
            />
          ) : open >= 0 ? (
            <PaintedCard
              key={open}
              sitting={sitting}
              region={open}
              now={now}
              onTell={say}
              onBack={() => setChosen(-1)}
            />
          ) : another ? (
            <Another
              sitting={sitting}
              next={first?.region}
              onChoose={(r) => {
                setAnother(false);
                setChosen(r);
              }}
              onBack={() => setAnother(false)}
            />
          ) : !sitting.laid ? (
            <LaidOut
              sitting={sitting}
              onTell={say}
              onAll={sitting.asPlanned.length > 0 && !taking ? paintedAway : undefined}
            />
          ) : step ? (
            <NextCard
              key={step.region}
              sitting={sitting}
              step={step}
              planned={step.region === first?.region}
              now={now}
              unsent={own.waiting(sitting.plan.regions[step.region]!.id)}
              onTell={say}
              onAnother={() => setAnother(true)}
            />
          ) : (
            <AllPainted sitting={sitting} now={now} onTell={say} />
          )}
        </Box>
      </Box>
      <Box
        component="section"
        aria-label="the hour"
        sx={{ borderTop: `2px solid ${grey.ink}`, mt: 1, pt: 0.5 }}
      >
        {phone && !hour ? (
          <Button
            color="inherit"
            aria-expanded={false}
            onClick={() => setHour(true)}
            sx={{ width: 1, justifyContent: "space-between", px: 0, fontWeight: 400 }}
          >
            <span>{inShort(sitting, now)}</span> the hour
          </Button>
        ) : (
          <>
            {phone && (
              <Button color="inherit" aria-expanded onClick={() => setHour(false)} sx={{ px: 0 }}>
                fold the hour
              </Button>
            )}
            <Typography variant="caption">
              <b>The hour</b> a slot is thick while wet, a thread when dry; bars below: washes.
              {!sitting.ended &&
                ` ${sitting.plan.totalMinutes} min of painting are left, with ${washes(sitting.plan.washes)}.`}
            </Typography>
            <SittingHour sitting={sitting} now={now} />
          </>
        )}
      </Box>
    </Shell>
  );
}

/** The hour in a line: what dries next. */
function inShort(sitting: Sitting, now: number): string {
  const wet = sitting.places
    .map((p, i) => ({ dry: p.coats > 0 ? p.dry : 0, label: sitting.plan.regions[i]!.label }))
    .filter((p) => p.dry > now)
    .sort((a, b) => a.dry - b.dry);
  return wet[0] ? `${wet[0].label} is dry in ${leftOf(wet[0].dry - now)}` : "nothing is wet";
}

/** What to squeeze out before the first slot. */
function LaidOut({
  sitting,
  onTell,
  onAll,
}: {
  sitting: Sitting;
  onTell: (done: Done) => void;
  /** All of it was painted as it was planned, away from here. */
  onAll: (() => void) | undefined;
}) {
  const { fill } = useColours();
  return (
    <Box component="section" aria-label="lay out">
      <Typography component="h2" sx={{ fontSize: 40, lineHeight: 1.1, fontWeight: 500 }}>
        {sitting.plan.amounts.some((a) => a.loads > 0) ? "Wet these pans" : "Squeeze out"}
      </Typography>
      {sitting.plan.amounts.map((a) => (
        <Box
          key={a.paint}
          sx={{
            display: "flex",
            gap: 2,
            alignItems: "center",
            minHeight: 40,
            borderBottom: `1px solid ${grey.hairline}`,
          }}
        >
          <Box sx={{ width: 40, height: 22, bgcolor: fill(a) }} />
          <Typography sx={{ flex: 1 }}>
            <b>{a.code}</b> {a.name}
          </Typography>
          <Typography>
            {a.loads > 0 ? `${a.loads} brush loads` : `${a.ml.toFixed(2)} ml, ${a.ribbonMm} mm`}
          </Typography>
        </Box>
      ))}
      <MayAsk of={sitting.plan.amounts} />
      <Box sx={{ display: "flex", mt: 2 }}>
        <Large keys="p" onClick={() => onTell({ kind: "laid out" })}>
          it is laid out
        </Large>
      </Box>
      {onAll && (
        <Box sx={{ mt: 1 }}>
          <Typography variant="caption" component="p">
            Painted from the paper already? Say so in one go; slips are told afterwards, place by
            place.
          </Typography>
          <Tap onClick={onAll}>painted as planned</Tap>
        </Box>
      )}
    </Box>
  );
}

/** The slots that are left, to take another one first. */
function Another({
  sitting,
  next,
  onChoose,
  onBack,
}: {
  sitting: Sitting;
  next: number | undefined;
  onChoose: (region: number) => void;
  onBack: () => void;
}) {
  const { fill } = useColours();
  const left = sitting.plan.regions.flatMap((r, i) =>
    i !== next && (isLeft(sitting.places[i]!) || sitting.places[i]!.coats === 0) ? [{ r, i }] : [],
  );
  return (
    <Box component="section" aria-label="another slot">
      <Typography component="h2" sx={{ fontSize: 28, fontWeight: 500 }}>
        Which one instead?
      </Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "1fr 1fr",
          columnGap: 2,
          maxHeight: 400,
          overflowY: "auto",
        }}
      >
        {left.map(({ r, i }) => (
          <Tap key={r.id} onClick={() => onChoose(i)}>
            <Box
              component="span"
              sx={{ width: 32, height: 22, mr: 1.5, bgcolor: fill(sitting.places[i]!.dried) }}
            />
            <Box component="span" sx={{ flex: 1, textAlign: "left" }}>
              {r.label}
            </Box>
          </Tap>
        ))}
      </Box>
      <Tap keys="b" onClick={onBack}>
        back to what is next
      </Tap>
    </Box>
  );
}

/** So long a pause may have left little that can be painted with. */
const longPause = 6 * 60 * 60_000;

/** A pause; after a long one it asks which of the wells still hold what can be painted with. */
function Paused({
  sitting,
  now,
  onResume,
}: {
  sitting: Sitting;
  now: number;
  onResume: (empty: Done[]) => void;
}) {
  const { fill } = useColours();
  const [empty, setEmpty] = useState<number[]>([]);
  const wells = sitting.wells.flatMap((w, i) =>
    w.region >= 0 && (w.lasts === 0 || w.lasts > now) ? [{ ...w, well: i + 1 }] : [],
  );
  const asks = wells.length > 0 && now - sitting.paused > longPause;
  const turn = (well: number) =>
    setEmpty(empty.includes(well) ? empty.filter((w) => w !== well) : [...empty, well]);
  return (
    <Box component="section" aria-label="paused">
      <Typography component="h2" sx={{ fontSize: 40, fontWeight: 500 }}>
        Paused
      </Typography>
      <Typography sx={{ my: 2 }}>
        {asks
          ? "Which of these can still be painted with?"
          : "Go on in an hour or tomorrow. Wells over their time count as empty then, and the rest is planned anew."}
      </Typography>
      {asks &&
        wells.map(({ well, region }) => (
          <Box key={well} sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
            <Box
              sx={{
                width: 32,
                height: 22,
                bgcolor: empty.includes(well) ? undefined : fill(sitting.places[region]!.wet),
                border: `1px solid ${grey.hairline}`,
              }}
            />
            <Typography sx={{ flex: 1 }}>
              well {well}, of {sitting.plan.regions[region]!.label}
            </Typography>
            <Tap pressed={!empty.includes(well)} onClick={() => turn(well)}>
              {empty.includes(well) ? "it is dry" : "it can be used"}
            </Tap>
          </Box>
        ))}
      <Box sx={{ display: "flex" }}>
        <Large keys="p" onClick={() => onResume(empty.map((well) => ({ kind: "rinsed", well })))}>
          go on painting
        </Large>
      </Box>
    </Box>
  );
}

function AllPainted({
  sitting,
  now,
  onTell,
}: {
  sitting: Sitting;
  now: number;
  onTell: (done: Done) => void;
}) {
  const dry = Math.max(0, ...sitting.places.map((p) => p.dry));
  const skipped = sitting.plan.regions.filter(
    (_, i) => sitting.places[i]!.skipped && sitting.places[i]!.coats === 0,
  );
  return (
    <Box component="section" aria-label="all painted">
      <Typography component="h2" sx={{ fontSize: 40, lineHeight: 1.1, fontWeight: 500 }}>
        {skipped.length > 0 ? "All painted but what was skipped" : "All painted"}
      </Typography>
      {skipped.length > 0 && <Typography>{skipped.map((r) => r.label).join(", ")}</Typography>}
      <Typography sx={{ my: 2 }}>
        {dry > now
          ? `The last slot is dry in ${Math.ceil((dry - now) / 60000)} min.`
          : "It is dry."}{" "}
        A slot can be tapped to say what it really took, that it is still wet, or that it has a coat
        more.
      </Typography>
      <Box sx={{ display: "flex", gap: 2 }}>
        <Button
          component={To}
          to={`/bench/sitting/${sitting.id}/readings`}
          variant="contained"
          disableElevation
          sx={{ flex: 2, minHeight: 76, fontSize: 22, fontWeight: 600 }}
        >
          read it
        </Button>
        <Second keys="p" onClick={() => onTell({ kind: "ended" })}>
          end the sitting
        </Second>
      </Box>
    </Box>
  );
}

function Ended({ sitting }: { sitting: Sitting }) {
  const painted = sitting.places.filter((p) => p.coats > 0).length;
  return (
    <Box component="section" aria-label="ended">
      <Typography component="h2" sx={{ fontSize: 40, lineHeight: 1.1, fontWeight: 500 }}>
        {painted} of {sitting.places.length} painted
      </Typography>
      <Typography sx={{ my: 2 }}>
        The sitting has ended; taking that back goes on with it. {washes(sitting.washes)}.{" "}
        <To to={`/log/${sitting.id}`}>What came of it</To>
      </Typography>
      {sitting.notes
        .filter((n) => n.kind === "noted")
        .map((n) => (
          <Typography key={n.id}>{n.text}</Typography>
        ))}
    </Box>
  );
}
