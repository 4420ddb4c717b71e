import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Slider from "@mui/material/Slider";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { memo, useDeferredValue, useMemo, useState } from "react";
import { Link as To, useParams } from "react-router";
import {
  constants,
  type KeptTube,
  type Paint,
  type Pair,
  type PairingOfBoth,
  type Profile,
} from "../api/client";
import { boxQuery, paintsQuery, pairingsQuery, pairQuery } from "../api/queries";
import { choicesOf, OneOf } from "../parts/Choice";
import { plainSettings, spacingWords } from "../parts/choices";
import { Said } from "../parts/Expect";
import { KeptShell, MissingWheel } from "../app/Kept";
import { inParts, keyOf, nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { colourFiles, TakeAlong } from "../parts/TakeAlong";
import { useAddress } from "../parts/useAddress";
import { useGuesses } from "../parts/useGuesses";
import { useKeptWheel } from "../parts/useKeptWheel";
import { Waiting } from "../parts/Waiting";
import { Tabs } from "../parts/Tabs";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { useSquint } from "../drawing/screen";
import { nearest } from "../parts/nearest";
import { shareOf } from "./along";
import { CoveredPath } from "./CoveredPath";
import { Overshot } from "./Overshot";
import { PathFigure, type Over } from "./PathFigure";
import { PileView, type OnPalette } from "./PileView";
import { QuietView } from "./QuietView";
import { SheetView } from "./SheetView";
import { PointCard } from "./PointCard";
import { VisuallyHidden } from "../parts/VisuallyHidden";
import { usePhone } from "../parts/usePhone";

export function PathPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OnePath key={id} id={id} painter={painter} />;
}

const mostSteps = constants.mostSteps;
const views = {
  path: "one path",
  sheet: "ladder sheet",
  pile: "a pile",
  quiet: "quieten",
} as const;

/** One pairing at full width. */
function OnePath({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { search, show, one } = useAddress();
  const view = one<keyof typeof views>("view", views, "path");
  const settings = own.content?.settings ?? plainSettings;
  const system = own.content?.system;
  const pairings = useQuery({
    ...pairingsQuery(system ? { wheel: id, system } : "box", settings),
    enabled: !!system,
  });
  const box = useQuery(boxQuery(settings));
  const library = useQuery(paintsQuery(settings));
  const first = pairings.data?.pairs[0];
  const [a, b] = [search.get("a") ?? first?.a, search.get("b") ?? first?.b];
  const steps = Math.max(1, Math.min(mostSteps, Number(search.get("steps") ?? 3) || 3));
  const third = search.get("third") ?? "";
  const covering = search.get("cover") === "on";
  const guesses = useGuesses(id, settings);
  const way = useQuery({
    ...pairQuery({ wheel: id, a: a ?? "", b: b ?? "", steps, ...(third && { third }) }, settings),
    enabled: !!a && !!b,
  });
  const { content } = own;
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;
  const paints = [
    ...(pairings.data?.paints ?? []).map((p) => ({ value: p.id, name: p.name })),
    ...(box.data?.tubes ?? []).map((t) => ({ value: t.paint.id, name: nameOf(t) })),
    ...(library.data ?? []).map((p) => ({ value: p.id, name: p.shortName })),
  ].filter((p, i, all) => all.findIndex((q) => q.value === p.value) === i);
  const atHand = palette(pairings.data?.paints ?? [], box.data?.tubes ?? [], library.data ?? []);
  const pair = way.error ? undefined : way.data;
  const over = pair && covering && pair.predictable && guesses.covered(pair);
  const said = pair && guesses.of(pair);
  const ready = !pairings.isPending && !box.isPending && !library.isPending;
  // A tube that was put away is still named where it is used.
  const away = box.data?.archived.map((t) => ({ value: t.paint.id, name: nameOf(t) })) ?? [];
  const called = (ref?: string) =>
    [...paints, ...away].find((p) => p.value === ref)?.name ?? ref ?? "";
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="path">
      <Tabs
        label="looked at"
        words={views}
        value={view}
        onChoose={(v) => show({ view: v === "path" ? undefined : v })}
      />
      {view === "pile" && system && ready && (
        <PileView id={id} system={system} settings={settings} paints={atHand} called={called} />
      )}
      {view === "quiet" && ready && (
        <QuietView id={id} settings={settings} paints={atHand} called={called} />
      )}
      {view === "sheet" && pairings.data && (
        <SheetView
          id={id}
          settings={settings}
          pairs={pairings.data.pairs}
          steps={steps}
          called={called}
        >
          <StepCount steps={steps} onSet={(n) => show({ steps: String(n) })} />
        </SheetView>
      )}
      {view === "path" && (
        <>
          <Box
            sx={{
              display: "flex",
              flexWrap: "wrap",
              columnGap: 2,
              alignItems: "baseline",
              "& button": { fontSize: 22, py: 0.5, minHeight: 48 }, // the room the names will take
            }}
          >
            <OneOf
              label="from"
              ready={ready}
              shown={called(a)}
              of={paints}
              value={a ?? ""}
              onChoose={(v) => show({ a: v, b })}
            />
            <Typography sx={{ color: grey.second }}>to</Typography>
            <OneOf
              label="to"
              ready={ready}
              shown={called(b)}
              of={paints}
              value={b ?? ""}
              onChoose={(v) => show({ a, b: v })}
            />
          </Box>
          <Box
            sx={{
              display: "flex",
              flexWrap: "wrap",
              columnGap: 3,
              alignItems: "center",
              minHeight: 44,
            }}
          >
            <OneOf
              label="steps set"
              shown={spacingWords[settings.choices.spacing]}
              of={choicesOf(spacingWords)}
              value={settings.choices.spacing}
              onChoose={(spacing) =>
                own.change({
                  ...content,
                  settings: { ...settings, choices: { ...settings.choices, spacing } },
                })
              }
            />
            <StepCount steps={steps} onSet={(n) => show({ steps: String(n) })} />
            <Button
              color="inherit"
              aria-pressed={covering}
              disabled={!guesses.ready}
              onClick={() => show({ cover: covering ? undefined : "on" })}
            >
              {covering ? "lift all covers" : "predict first"}
            </Button>
            {a && b && (
              <Button
                color="inherit"
                component={To}
                to={`/bench/${id}/paper?${new URLSearchParams({ sheet: "ladder", a, b, steps: String(steps) })}`}
              >
                on paper
              </Button>
            )}
            {a && b && (
              <TakeAlong
                of={colourFiles(
                  (format) =>
                    `/api/pair/palette?${new URLSearchParams({ a, b, steps: String(steps), wheel: String(id), medium: settings.medium, spacing: settings.choices.spacing, format })}`,
                )}
              />
            )}
            <OneOf
              label="a trace of"
              ready={ready}
              shown={third ? `a trace of ${called(third)}` : "a clean brush"}
              of={[
                { value: "", name: "a clean brush" },
                ...paints.filter((p) => p.value !== a && p.value !== b),
              ]}
              value={third}
              onChoose={(v) => show({ third: v || undefined })}
            />
          </Box>
          {way.error && (
            <Typography role="alert" sx={{ mt: 2 }}>
              {way.error.message}
            </Typography>
          )}
          {guesses.problem && <Typography role="alert">{guesses.problem}</Typography>}
          {pair && over && <CoveredPath pair={pair} called={called} guesses={guesses} />}
          {pair && !over && (
            <>
              {said && (
                <Said
                  said={said}
                  outcome={said}
                  each={guesses.each}
                  from={called(said.a)}
                  to={called(said.b)}
                />
              )}
              <Along
                key={`${pair.a.id} ${pair.b.id} ${pair.steps.length} ${pair.spacing}`}
                wheel={id}
                pair={pair}
                third={third}
                others={pairings.data?.pairs ?? []}
                called={called}
                onOther={(p) => show({ a: p.a, b: p.b })}
              />
            </>
          )}
        </>
      )}
    </KeptShell>
  );
}

/** How many steps a way is parted into. */
function StepCount({ steps, onSet }: { steps: number; onSet: (n: number) => void }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center" }}>
      <Button
        color="inherit"
        aria-label="a step less"
        disabled={steps <= 1}
        onClick={() => onSet(steps - 1)}
        sx={{ minWidth: 48 }}
      >
        −
      </Button>
      <Typography component="span" sx={{ fontFamily: figures }}>
        {steps} step{steps > 1 && "s"}
      </Typography>
      <Button
        color="inherit"
        aria-label="a step more"
        disabled={steps >= mostSteps}
        onClick={() => onSet(steps + 1)}
        sx={{ minWidth: 48 }}
      >
        +
      </Button>
    </Box>
  );
}

/** The paints of a system, those of the box, and the whites and blacks of the library. */
function palette(system: OnPalette[], box: KeptTube[], library: Paint[]): OnPalette[] {
  const more = [
    ...box.map((t) => ({ ...t.paint, name: nameOf(t) })),
    ...library
      .filter((p) => p.family === "white" || p.family === "black")
      .map((p) => ({ ...p, name: p.shortName })),
  ];
  return [...system, ...more].filter(
    (p, i, all) => all.findIndex((q) => q.id === p.id || q.name === p.name) === i,
  );
}

function Along({
  wheel,
  pair,
  third,
  others,
  called,
  onOther,
}: {
  wheel: number;
  pair: Pair;
  third: string;
  others: PairingOfBoth[];
  called: (ref?: string) => string;
  onOther: (p: PairingOfBoth) => void;
}) {
  const { phone } = usePhone();
  const even = pair.steps.map((s) => s.at);
  const [flags, setFlags] = useState(even);
  const [at, setAt] = useState(0.5);
  const [chosenTaint, setTaint] = useState(4);
  const [over, setOver] = useState<string[]>([]);
  const scale = third && pair.taints ? pair.taints : [];
  const taint = Math.min(chosenTaint, Math.max(0, scale.length - 1));
  const sample = nearest(pair, at);
  const moved = flags.some((f, i) => f !== even[i]);
  const laidOver = useMemo(
    () => others.filter((p) => over.includes(keyOf(p))).map((p) => turnedLike(pair, p)),
    [others, over, pair],
  );
  const shown = useDeferredValue(sample); // a drag does not wait for what is said of its place
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 348px" },
        gap: 3,
        mt: 0.5,
      }}
    >
      <Box>
        {scale.length > 0 ? (
          <Box sx={{ display: "flex", alignItems: "center", gap: 2, maxWidth: 460 }}>
            <Slider
              size="small"
              aria-label="share of the third paint"
              min={0}
              max={scale.length - 1}
              value={taint}
              getAriaValueText={(i) => `${(100 * shareOf(pair, i)).toFixed(1)} %`}
              onChange={(_, v) => setTaint(v)}
            />
            <Typography
              variant="caption"
              sx={{ whiteSpace: "nowrap", fontFamily: figures, width: 190 }}
            >
              {(100 * shareOf(pair, taint)).toFixed(1)} % in every mixture
            </Typography>
          </Box>
        ) : null}
        <PathFigure
          pair={pair}
          taint={taint}
          at={at}
          flags={flags}
          over={laidOver}
          onAt={setAt}
          onFlag={(i, to) => setFlags(flags.map((f, n) => (n === i ? to : f)))}
        />
        {phone && (
          <>
            <Stepper
              name="place"
              at={sample}
              pair={pair}
              onStep={(i) => setAt(pair.samples[i]!.at)}
            />
            {flags.map((f, n) => (
              <Stepper
                key={n}
                name={`step ${n + 1}`}
                at={nearest(pair, f)}
                pair={pair}
                onStep={(i) =>
                  setFlags(flags.map((was, k) => (k === n ? pair.samples[i]!.at : was)))
                }
              />
            ))}
          </>
        )}
        {moved && (
          <Button size="small" color="inherit" onClick={() => setFlags(even)} sx={{ px: 0 }}>
            set the steps evenly again
          </Button>
        )}
        <Family
          pair={pair}
          others={others}
          over={over}
          called={called}
          onOver={setOver}
          onOther={onOther}
        />
        <Overshot wheel={wheel} pair={pair} sample={shown} called={called} />
      </Box>
      <Box sx={{ borderLeft: { md: `1px solid ${grey.hairline}` }, pl: { md: 2 } }}>
        <PointCard
          wheel={wheel}
          pair={pair}
          taint={taint}
          sample={shown}
          from={called(pair.a.id)}
          to={called(pair.b.id)}
        />
      </Box>
    </Box>
  );
}

/** On a phone: what is small in the figure, moved by a thumb. */
function Stepper({
  name,
  at,
  pair,
  onStep,
}: {
  name: string;
  at: number;
  pair: Pair;
  onStep: (sample: number) => void;
}) {
  const last = pair.samples.length - 1;
  const step = (by: number, word: string, sign: string) => (
    <Button
      color="inherit"
      variant="outlined"
      aria-label={`${name} ${word}`}
      disabled={at + by < 0 || at + by > last}
      onClick={() => onStep(at + by)}
      sx={{ minWidth: 56, fontSize: 20, lineHeight: 1 }}
    >
      {sign}
    </Button>
  );
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{ display: "flex", alignItems: "center", gap: 1, mt: 0.5 }}
    >
      {step(-1, `nearer to ${pair.a.name}`, "‹")}
      <Typography sx={{ flex: 1, textAlign: "center" }}>
        {name}: <span style={{ fontFamily: figures }}>{inParts(pair.samples[at]!.parts)}</span>
      </Typography>
      {step(1, `nearer to ${pair.b.name}`, "›")}
    </Box>
  );
}

/** Other ways that share a paint with this one: followed, or laid over it. */
const Family = memo(function Family({
  pair,
  others,
  over,
  called,
  onOver,
  onOther,
}: {
  pair: Pair;
  others: PairingOfBoth[];
  over: string[];
  called: (ref?: string) => string;
  onOver: (over: string[]) => void;
  onOther: (p: PairingOfBoth) => void;
}) {
  useSquint();
  const [all, setAll] = useState(false);
  const section = others.find((p) => keyOf(p) === keyOf({ a: pair.a.id, b: pair.b.id }))?.section;
  const elsewhere = (p: PairingOfBoth) => Number(p.section !== section);
  const family = others
    .filter(
      (p) =>
        (p.a === pair.a.id || p.b === pair.b.id || p.a === pair.b.id || p.b === pair.a.id) &&
        keyOf(p) !== keyOf({ a: pair.a.id, b: pair.b.id }) &&
        p.band,
    )
    .sort((p, q) => elsewhere(p) - elsewhere(q));
  const near = family.filter((p) => !elsewhere(p));
  const listed = all || near.length === 0 ? family : near;
  return (
    <>
      <Typography
        variant="caption"
        component="p"
        sx={{ mt: 1.5, borderTop: `2px solid ${grey.ink}`, pt: 0.5 }}
      >
        other ways of these two in the system
      </Typography>
      {family.length === 0 && (
        <Typography variant="body2">
          none: choose a system with more paints, or other paints above.
        </Typography>
      )}
      {listed.map((p) => {
        const on = over.includes(keyOf(p));
        return (
          <Box
            key={keyOf(p)}
            sx={{
              display: "grid",
              gridTemplateColumns: "minmax(0, 1fr) 84px",
              alignItems: "center",
              borderBottom: `1px solid ${grey.hairline}`,
            }}
          >
            <Box
              component="button"
              onClick={() => onOther(p)}
              sx={{
                display: "grid",
                gridTemplateColumns: {
                  xs: "minmax(0, 1fr) 48px 20px 40px",
                  sm: "200px minmax(0, 1fr) 20px 40px",
                },
                gap: 1.5,
                alignItems: "center",
                p: 0,
                minHeight: { xs: 48, sm: 30 },
                border: 0,
                bgcolor: "transparent",
                color: grey.ink,
                font: "inherit",
                textAlign: "left",
                cursor: "pointer",
              }}
            >
              <VisuallyHidden>follow</VisuallyHidden>
              <Box
                component="span"
                sx={{ fontSize: 13, lineHeight: "16px", overflowWrap: "anywhere" }}
              >
                {called(p.a)} to {called(p.b)}
              </Box>
              <Ribbon band={p.band!} height={16} middle={false} />
              <Drop verdict={p.verdict} height={14} />
              <Box component="span" sx={{ fontFamily: figures, fontSize: 12 }}>
                {p.retention.toFixed(2)}
              </Box>
            </Box>
            <Button
              size="small"
              color="inherit"
              role="checkbox"
              aria-checked={on}
              aria-label={`lay ${called(p.a)} to ${called(p.b)} over`}
              disabled={!on && over.length >= mostOver}
              onClick={() => onOver(on ? over.filter((k) => k !== keyOf(p)) : [...over, keyOf(p)])}
              sx={{ py: 0, fontWeight: on ? 600 : 400 }}
            >
              {on ? "take off" : "lay over"}
            </Button>
          </Box>
        );
      })}
      {listed.length < family.length && (
        <Button size="small" color="inherit" onClick={() => setAll(true)} sx={{ px: 0 }}>
          {family.length - listed.length} more that share a paint
        </Button>
      )}
    </>
  );
});

/** How many other ways are laid over one at most. */
const mostOver = 3;

/** Another way, turned so that what it shares with this one stands on the same side. */
function turnedLike(pair: Pair, other: PairingOfBoth): Over {
  const turned = other.a === pair.b.id || other.b === pair.a.id;
  return {
    name: keyOf(other),
    band: turned ? other.band!.map((b) => ({ ...b, at: 1 - b.at })).reverse() : other.band!,
  };
}
