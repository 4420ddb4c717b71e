import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import type { Counted, Sitting } from "../api/client";
import { faded } from "../drawing/Fade";
import { useColours } from "../drawing/screen";
import { aboveRail, grey, screens } from "../drawing/style";
import { Amounts } from "../parts/CountedOut";
import { HowToMix } from "../parts/Recipe";
import { InTubes } from "../parts/InTubes";
import { useMeasure } from "../parts/useMeasure";
import { Value } from "../parts/Value";
import { Large, Note, Second, Tap, TookMore } from "./Pieces";
import { TestSwatch } from "./TestSwatch";
import { leftOf, timeOf, toldOf, type Step } from "./steps";
import type { Done } from "./useSitting";

/** The colour aimed at, wet and dry. */
function Aim({ sitting, region }: { sitting: Sitting; region: number }) {
  const { fill } = useColours();
  const place = sitting.places[region]!;
  return (
    <Box sx={{ display: "flex", flex: "none" }}>
      {(["wet", "dried"] as const).map((state) => (
        <Box key={state} sx={{ width: 104 }}>
          <Box
            sx={{
              height: 54,
              background: place.drawn ? faded(place.drawn[state], { fill }) : fill(place[state]),
            }}
          />
          <Typography variant="caption" component="p">
            {state === "wet" ? "while wet" : "when dry"}
          </Typography>
          <Typography variant="caption" component="p">
            <Value of={place[state]} />
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** A place by its name, a line about it, and the colour aimed at. */
function Head({
  sitting,
  region,
  children,
}: {
  sitting: Sitting;
  region: number;
  children: ReactNode;
}) {
  const { label } = sitting.plan.regions[region]!;
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2 }}>
      <Box>
        <Typography
          component="h2"
          sx={{ fontSize: { xs: 40, lg: 46 }, lineHeight: 1.1, fontWeight: 500 }}
        >
          {label.charAt(0).toUpperCase() + label.slice(1)}
        </Typography>
        <Typography sx={{ fontSize: 18, mt: 0.5 }}>{children}</Typography>
      </Box>
      <Aim sitting={sitting} region={region} />
    </Box>
  );
}

/** What a region lies beside: which of it is wet, and until when. */
function beside(s: Sitting, region: number, now: number) {
  return s.plan.regions[region]!.touches.flatMap((k) => {
    const at = s.places[k]!;
    if (at.coats === 0) return [];
    return [{ region: k, label: s.plan.regions[k]!.label, wet: at.dry > now, dry: at.dry }];
  });
}

/** What can be opened below a card. */
type Below = "took" | "note" | "test" | "ran";

/** How long after it was dry a place can be said to have been run into. */
const ranBefore = 10 * 60_000;

/** Which of the places that are wet, or were just now, was run into. */
function RanInto({
  sitting,
  now,
  onTell,
}: {
  sitting: Sitting;
  now: number;
  onTell: (done: Done) => void;
}) {
  const could = sitting.plan.regions.filter((_, i) => {
    const p = sitting.places[i]!;
    return p.coats > 0 && !p.ran && p.dry > now - ranBefore;
  });
  return (
    <Box
      component="section"
      aria-label="it ran"
      sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}
    >
      <Typography>Blot it with a dry corner of paper. Which one was run into?</Typography>
      {could.map((r) => (
        <Tap key={r.id} onClick={() => onTell({ kind: "ran", region: r.id })}>
          {r.label}
        </Tap>
      ))}
    </Box>
  );
}

/** What was opened below a card: what it took, a test swatch, what was run into, or a note. */
function Opened({
  what,
  sitting,
  region,
  counted,
  now,
  onTell,
}: {
  what: Below | null;
  sitting: Sitting;
  region: number;
  counted: Counted;
  now: number;
  onTell: (done: Done) => void;
}) {
  const { id } = sitting.plan.regions[region]!;
  if (what === "took") return <TookMore id={id} counted={counted} onTell={onTell} />;
  if (what === "test") return <TestSwatch sitting={sitting} id={id} onTell={onTell} />;
  if (what === "ran") return <RanInto sitting={sitting} now={now} onTell={onTell} />;
  if (what === "note")
    return <Note onKeep={(text) => onTell({ kind: "noted", region: id, text })} />;
  return null;
}

/** The one next action: what to paint, of what, and what goes before it. */
export function NextCard({
  sitting,
  step,
  planned,
  now,
  unsent,
  onTell,
  onAnother,
}: {
  sitting: Sitting;
  step: Step;
  /** Whether it is what the plan says; else the painter chose it. */
  planned: boolean;
  now: number;
  /** Whether what its pile really took has not reached the server yet. */
  unsent: boolean;
  onTell: (...done: Done[]) => void;
  onAnother: () => void;
}) {
  const { mm } = useMeasure(sitting.plan.medium);
  const [open, setOpen] = useState<Below | null>(null);
  const r = sitting.plan.regions[step.region]!;
  const around = beside(sitting, step.region, now);
  const wet = around.filter((k) => k.wet);
  const dry = around.filter((k) => !k.wet && k.dry > now - 30 * 60000);
  const under = (r.beneath ?? []).flatMap((k) => {
    const { coats, dry } = sitting.places[k]!;
    if (coats === 0) return [];
    const { label } = sitting.plan.regions[k]!;
    return [dry > now ? `${label} (wet until ${timeOf(dry)})` : `${label}, dry`];
  });
  const counted = step.counted ?? r.counted;
  const remedies = unsent ? [] : (step.remedies ?? []);
  const tells = toldOf(step.tells ?? []);
  const mix = step.before.find((a) => a.kind === "mix");
  const well = mix?.well ?? step.paint?.well ?? 0;
  const wait = step.before.find((a) => a.kind === "wait");
  const until = wait && sitting.now + wait.end * 60000;
  const brush = step.before.filter(
    (a) => a.kind === "wash" || a.kind === "water" || a.kind === "rinse",
  );
  const head =
    remedies.length > 0
      ? `The pile in well ${well} is not what it was meant to be`
      : well === 0
        ? "As it comes from the tube:"
        : !mix
          ? `It stands mixed in well ${well}:`
          : (mix.from ?? 0) > 0 && mix.from !== well
            ? `Take ${(mix.fromMl ?? 0).toFixed(2)} ml of well ${mix.from} into well ${well}, and add:`
            : counted.adds
              ? `Add to what is in well ${well}:`
              : `Mix in well ${well}:`;
  return (
    <Box
      component="section"
      aria-label="next"
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Typography variant="caption" component="div">
        {planned ? "next" : "instead"}
        {under.length > 0 && ` · over ${under.join(" and ")}`}
        {sitting.places[step.region]!.ran && " · a coat over what ran into it, when it is dry"}
        {wet.length > 0 &&
          ` · beside ${wet.map((k) => `${k.label} (wet until ${timeOf(k.dry)})`).join(" and ")}`}
        {wet.length === 0 &&
          dry.length > 0 &&
          ` · beside ${dry.map((k) => k.label).join(" and ")}, dry`}
      </Typography>
      <Head sitting={sitting} region={step.region}>
        {head}
      </Head>
      {remedies.length > 0 ? (
        <WayBack step={step} mm={mm} />
      ) : (
        <>
          {open !== "test" && <Counting of={counted} mm={mm} />}
          {open !== "test" && <InTubes of={sitting.plan.regions[step.region]!} />}
          {step.pile && <Typography role="status">{step.pile}</Typography>}
        </>
      )}
      {unsent && (
        <Typography role="status">
          Noted; the way back comes when in contact. Until then: paint it as it is, or start anew.
        </Typography>
      )}
      {r.thin && <Typography>{r.thin}</Typography>}
      {step.bare && <Typography role="status">{step.bare}</Typography>}
      {open !== "test" && (
        <>
          <Box sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}>
            {brush.map((a, i) => (
              <Box key={i} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
                <Typography sx={{ flex: 1 }}>
                  <b>
                    {a.kind === "wash"
                      ? a.thorough
                        ? "Wash the brush thoroughly"
                        : "Wash the brush"
                      : a.kind === "water"
                        ? "Change the water"
                        : `Rinse well ${a.well}`}
                  </b>
                  {": "}
                  {a.because}
                </Typography>
                <Tap onClick={() => onTell(...toldOf(a.tells))}>done</Tap>
              </Box>
            ))}
            {brush.length === 0 && planned && <Typography>Brush: no wash.</Typography>}
            {until !== undefined && until > now && (
              <Typography role="timer">
                <b>Wait {leftOf(until - now)}</b>: {wait!.because}
              </Typography>
            )}
          </Box>
          <Box sx={{ display: "flex", gap: 2, ...atTheThumb }}>
            {remedies.length > 0 ? (
              <>
                <Large keys="p" onClick={() => onTell(...toldOf(remedies[0]!.tells))}>
                  {doneWord[remedies[0]!.kind]}
                </Large>
                <Second keys="i" onClick={() => onTell(...tells.filter((t) => t.kind !== "mixed"))}>
                  painted as it is
                </Second>
              </>
            ) : (
              <>
                <Large keys="p" onClick={() => onTell(...tells)}>
                  painted
                </Large>
                {unsent ? (
                  <Second onClick={() => onTell(...toldOf(step.anew ?? []))}>start anew</Second>
                ) : (
                  well > 0 &&
                  counted.measure !== "looks" && (
                    <Second
                      keys="m"
                      pressed={open === "took"}
                      onClick={() => setOpen(open === "took" ? null : "took")}
                    >
                      took more, or less
                    </Second>
                  )
                )}
              </>
            )}
          </Box>
          {remedies.length > 1 && <OtherWays all={remedies.slice(1)} onTell={onTell} />}
        </>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", justifyContent: "space-between", mx: -1 }}>
        <Tap keys="a" onClick={onAnother}>
          another slot
        </Tap>
        <Tap keys="s" onClick={() => onTell({ kind: "skipped", region: r.id })}>
          skip
        </Tap>
        {around.some((k) => k.dry > now - 60 * 60000) && (
          <Tap
            keys="w"
            onClick={() => {
              const latest = [...around].sort((x, y) => y.dry - x.dry)[0]!;
              onTell({ kind: "still wet", region: sitting.plan.regions[latest.region]!.id });
            }}
          >
            still wet
          </Tap>
        )}
        <Tap
          keys="t"
          pressed={open === "test"}
          onClick={() => setOpen(open === "test" ? null : "test")}
        >
          {sitting.places[step.region]!.tested ? "tested: once more" : "a test swatch"}
        </Tap>
        {sitting.places.some((p) => p.coats > 0 && p.dry > now - ranBefore) && (
          <Tap
            keys="r"
            pressed={open === "ran"}
            onClick={() => setOpen(open === "ran" ? null : "ran")}
          >
            it ran
          </Tap>
        )}
        <Tap
          keys="n"
          pressed={open === "note"}
          onClick={() => setOpen(open === "note" ? null : "note")}
        >
          a note
        </Tap>
      </Box>
      <Opened
        what={open}
        sitting={sitting}
        region={step.region}
        counted={counted}
        now={now}
        onTell={(done) => {
          setOpen(null);
          // What was measured or tested was mixed before.
          const mixed = done.kind === "measured" || done.kind === "tested";
          onTell(...(mixed ? toldOf(step.measures ?? []) : []), done);
        }}
      />
    </Box>
  );
}

/** On a phone what is tapped most stays within the thumb's reach. */
const atTheThumb = {
  [`@media ${screens.upright}`]: {
    position: "sticky",
    bottom: aboveRail,
    zIndex: 3,
    bgcolor: grey.paper,
    py: 1,
  },
} as const;

const doneWord: Record<Remedy["kind"], string> = {
  mend: "it is mended",
  part: "it is parted and mended",
  anew: "another is mixed",
  "as is": "painted as it is",
};

const ways: Record<Remedy["kind"], string> = {
  mend: "Mend it",
  part: "Keep a part",
  anew: "Start anew",
  "as is": "Paint it as it is",
};

type Remedy = NonNullable<Step["remedies"]>[number];

/** What is counted out: what is let down first, and the amounts; by looks in words. */
function Counting({ of, mm }: { of: Counted; mm: number }) {
  const dabs = of.measure === "dabs";
  return (
    <>
      {of.before.map((pile, i) => (
        <Box key={i} sx={{ borderLeft: `2px solid ${grey.hairline}`, pl: 1.5 }}>
          <Typography variant="caption">let down first</Typography>
          <Amounts of={pile.taken} dabs={dabs} mm={mm} />
        </Box>
      ))}
      {of.measure === "looks" ? (
        <HowToMix steps={of.lines} />
      ) : (
        <Amounts of={of.taken} dabs={dabs} mm={mm} />
      )}
    </>
  );
}

/** A pile that is not what it was meant to be, and the way on that is advised. */
function WayBack({ step, mm }: { step: Step; mm: number }) {
  const [first] = step.remedies ?? [];
  if (!first) return null;
  return (
    <Box component="section" aria-label="the way back" sx={{ display: "grid", rowGap: 1 }}>
      <Typography>{step.pile}</Typography>
      <Box>
        <Typography>
          <b>{ways[first.kind]}.</b> {first.says}
        </Typography>
        {first.counted && <Counting of={first.counted} mm={mm} />}
      </Box>
    </Box>
  );
}

/** The other ways on. */
function OtherWays({ all, onTell }: { all: Remedy[]; onTell: (...done: Done[]) => void }) {
  return (
    <Box component="section" aria-label="other ways" sx={{ display: "grid", rowGap: 1 }}>
      {all.map((of) => (
        <Box
          key={of.kind}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            borderTop: `1px solid ${grey.hairline}`,
          }}
        >
          <Typography sx={{ flex: 1 }}>
            <b>{ways[of.kind]}.</b> {of.says} {of.counted && <>{of.counted.says}.</>}
          </Typography>
          {of.tells.length > 0 && (
            <Tap onClick={() => onTell(...toldOf(of.tells))}>{doneWord[of.kind]}</Tap>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** A place that is painted: how it stands, and what can still be done to it. */
export function PaintedCard({
  sitting,
  region,
  now,
  onTell,
  onBack,
}: {
  sitting: Sitting;
  region: number;
  now: number;
  onTell: (...done: Done[]) => void;
  onBack: () => void;
}) {
  const [open, setOpen] = useState<Below | null>(null);
  const r = sitting.plan.regions[region]!;
  const at = sitting.places[region]!;
  return (
    <Box
      component="section"
      aria-label="painted"
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Head sitting={sitting} region={region}>
        painted {timeOf(at.painted)}
        {at.coats > 1 && `, ${at.coats} coats`}
        {at.dry > at.painted && (at.dry > now ? `, wet until ${timeOf(at.dry)}` : ", dry")}
      </Head>
      {sitting.notes
        .filter((n) => n.region === r.id && n.kind === "noted")
        .map((n) => (
          <Typography key={n.id}>
            {timeOf(n.at)} {n.text}
          </Typography>
        ))}
      <Box sx={{ display: "flex", gap: 2 }}>
        <Large keys="b" onClick={onBack}>
          back to what is next
        </Large>
        <Second keys="w" onClick={() => onTell({ kind: "still wet", region: r.id })}>
          still wet
        </Second>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", justifyContent: "space-between", mx: -1 }}>
        <Tap onClick={() => onTell({ kind: "painted", region: r.id })}>a coat more</Tap>
        <Tap keys="r" onClick={() => onTell({ kind: "ran", region: r.id })}>
          it was run into
        </Tap>
        <Tap pressed={open === "took"} onClick={() => setOpen(open === "took" ? null : "took")}>
          took more, or less
        </Tap>
        <Tap pressed={open === "note"} onClick={() => setOpen(open === "note" ? null : "note")}>
          a note
        </Tap>
      </Box>
      <Opened
        what={open}
        sitting={sitting}
        region={region}
        counted={at.mixed ?? r.counted}
        now={now}
        onTell={(done) => {
          setOpen(null);
          onTell(done);
        }}
      />
    </Box>
  );
}
