import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To, useParams } from "react-router";
import type { PairingOfBoth, Pairings, Profile } from "../api/client";
import { boxQuery, pairingsQuery, type PairingsOf } from "../api/queries";
import { plainSettings } from "../parts/choices";
import { KeptShell, MissingWheel } from "../app/Kept";
import { counted, nameOf } from "../parts/naming";
import { Notice } from "../app/Notice";
import { grey } from "../drawing/style";
import { listIn, relisted, toggled, useAddress } from "../parts/useAddress";
import { useGuesses, type Guesses } from "../parts/useGuesses";
import { useKeptWheel } from "../parts/useKeptWheel";
import { Waiting } from "../parts/Waiting";
import { choicesOf, OneOf, Setting } from "../parts/Choice";
import { Tabs } from "../parts/Tabs";
import { AtHand, placeOf } from "../parts/holding";
import { PairArrow } from "../drawing/Marks";
import { Cell, type Paints } from "./Cell";
import { CoveredCell } from "./Covered";
import { Grid } from "./Grid";
import { SomePaints } from "./SomePaints";
import { MudMap } from "./MudMap";
import { useMarks, type Marks } from "./useMarks";
import { markWords, type Mark } from "./words";

const scopes = { system: "this system", box: "my whole box", some: "some paints" } as const;
const looks = { sorted: "bright to dull", lean: "by lean", map: "mud map" } as const;
const filters = {
  all: "all",
  none: markWords.none,
  "to paint": markWords["to paint"],
  painted: markWords.painted,
  judged: markWords.judged,
} as const;

export function PairingsPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <PairingsOf key={id} id={id} painter={painter} />;
}

/** Every two paints of a system or of the box: bright to dull, by lean, or as a map. */
function PairingsOf({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { search, show, one } = useAddress();
  const of = one<keyof typeof scopes>("of", scopes, "system");
  const look = one<keyof typeof looks>("look", looks, "sorted");
  const filter = one<keyof typeof filters>("mark", filters, "all");
  const covering = search.get("cover") === "on";
  const marks = useMarks();
  const settings = own.content?.settings ?? plainSettings;
  const guesses = useGuesses(id, settings);
  const system = own.content?.system;
  const some = listIn(search, "paints") ?? [];
  const from: PairingsOf =
    of === "some" ? { paints: some } : of === "box" || !system ? "box" : { wheel: id, system };
  const question = pairingsQuery(from, settings);
  const asked = useQuery({ ...question, enabled: !!system && question.enabled !== false });
  const few = of === "some" && some.length < 2;
  const box = useQuery(boxQuery(settings));
  const { content } = own;
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;
  const got = few ? undefined : asked.data;
  const nicknames = new Map((box.data?.tubes ?? []).map((t) => [t.paint.id, nameOf(t)]));
  const paints: Paints = new Map(
    (got?.paints ?? []).map((p) => [p.id, { ...p, name: nicknames.get(p.id) ?? p.name }]),
  );
  const called = (paint: string) => paints.get(paint)?.name ?? paint;
  const opened = search.get("pair");
  const covers: Covers = {
    on: covering,
    over: (p) => covering && p.predictable && guesses.covered(p),
    guesses,
  };
  const looked = got?.pairs.find((p) => `${p.a}~${p.b}` === opened);
  const half = looked && `${called(looked.a)} with ${called(looked.b)}`;
  const atHand = half
    ? [
        { name: half, view: settings, row: { wheel: id, places: [placeOf(half, looked.middle)] } },
        {
          name: `the pairing of ${half}`,
          view: settings,
          row: {
            wheel: id,
            places: [
              { name: called(looked.a), parts: [`${looked.a}=1`] },
              placeOf(half, looked.middle),
              { name: called(looked.b), parts: [`${looked.b}=1`] },
            ],
          },
        },
      ]
    : [];
  const open = (p: PairingOfBoth) => {
    const key = `${p.a}~${p.b}`;
    show({ pair: opened === key ? undefined : key });
  };
  return (
    <KeptShell
      painter={painter}
      own={{ ...own, content }}
      id={id}
      place="pairings"
      notice={guesses.problem && <Notice>{guesses.problem}</Notice>}
    >
      <AtHand things={atHand} />
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          alignItems: "flex-end",
          justifyContent: "space-between",
          columnGap: 3,
        }}
      >
        <Box sx={{ width: 1 }}>
          <Typography variant="h2">{got ? title(got) : "Pairings"}</Typography>
          {/* Its room is kept from the beginning, so that nothing moves from under the hand when it is filled. */}
          <Typography sx={{ color: grey.second, minHeight: { xs: "2lh", md: "1lh" } }}>
            {got &&
              (covering
                ? "Covered until you say what you expect: the hue half way, how bright it stays, where the mud starts."
                : summary(got))}
          </Typography>
        </Box>
        <Legend />
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3.5, alignItems: "center" }}>
        <Tabs
          label="laid out"
          words={covering ? { ...looks, sorted: "paint by paint" } : looks}
          value={look}
          onChoose={(v) => show({ look: v === "sorted" ? undefined : v })}
        />
        <Setting
          label="pairings of"
          words={scopes}
          value={of}
          onChoose={(v) => show({ of: v === "system" ? undefined : v, pair: undefined })}
        />
        {got && marks.ready && (
          <Checklist
            got={got}
            marks={marks}
            filter={filter}
            onFilter={(v) => show({ mark: v === "all" ? undefined : v })}
          />
        )}
        <Box sx={{ display: "flex", ml: "auto", gap: 1 }}>
          <Button
            color="inherit"
            disabled={!guesses.ready}
            aria-pressed={covering}
            onClick={() => show({ cover: covering ? undefined : "on" })}
          >
            {covering ? "lift all covers" : "predict first"}
          </Button>
          <Button color="inherit" component={To} to={`/bench/${id}/paper?sheet=grid`}>
            on paper
          </Button>
          <Button color="inherit" component={To} to={`/pairings/${id}/practice`}>
            practice
          </Button>
        </Box>
      </Box>
      {of === "some" && (
        <SomePaints
          tubes={box.data?.tubes ?? []}
          settings={settings}
          chosen={some}
          onPress={(paint) => show({ ...relisted("paints", toggled(paint)), pair: undefined })}
        />
      )}
      {few && (
        <Typography sx={{ mt: 2, color: grey.second }}>
          Press two paints or more, up to sixty; every two of them are laid beside each other.
        </Typography>
      )}
      {asked.error && !few && !asked.isPlaceholderData && (
        <Typography role="alert" sx={{ mt: 3 }}>
          {asked.error.message}
        </Typography>
      )}
      {got && !asked.error && (
        <Box sx={{ mt: 1.5, opacity: asked.isPlaceholderData ? 0.5 : 1 }}>
          {look === "map" ? (
            <MudMap
              key={`${of} ${got.paints.length}`}
              got={got}
              paints={paints}
              covered={covers.over}
              onOpen={open}
            />
          ) : !got.pairs[0]?.band ? (
            <Typography>So many pairings are only shown as a map.</Typography>
          ) : (
            <Blocks
              got={got}
              look={look}
              paints={paints}
              marks={marks}
              covers={covers}
              filter={filter}
              opened={opened}
              onOpen={open}
            />
          )}
          {look !== "sorted" && opened && (
            <Apart
              got={got}
              paints={paints}
              marks={marks}
              covers={covers}
              opened={opened}
              onOpen={open}
            />
          )}
        </Box>
      )}
    </KeptShell>
  );
}

const roleWords: Record<string, string> = {
  orange: "yellow with red",
  violet: "red with blue",
  green: "yellow with blue",
};

/** Which pairings are under a cover, and what is said of them. */
type Covers = { on: boolean; over: (p: PairingOfBoth) => boolean; guesses: Guesses };

function Blocks({
  got,
  look,
  paints,
  marks,
  covers,
  filter,
  opened,
  onOpen,
}: {
  got: Pairings;
  look: "sorted" | "lean";
  paints: Paints;
  marks: Marks;
  covers: Covers;
  filter: keyof typeof filters;
  opened: string | null;
  onOpen: (p: PairingOfBoth) => void;
}) {
  // Bright to dull would tell what the covers hide: then they stand as the paints do.
  const places = new Map(got.paints.map((p, i) => [p.id, i]));
  const byPaints = (p: PairingOfBoth) => places.get(p.a)! * got.paints.length + places.get(p.b)!;
  // A handful is drawn large, and opened.
  const few = look === "sorted" && !covers.on && got.pairs.length <= 3;
  const all = covers.on ? [...got.pairs].sort((x, y) => byPaints(x) - byPaints(y)) : got.pairs;
  const shown = (section: string) =>
    all.filter((p) => p.section === section && (filter === "all" || marks.markOf(p) === filter));
  const sections = got.sections.filter((s) => s.section);
  const others = got.sections.filter((s) => !s.section && shown(s.name).length > 0);
  const widest = Math.max(1, ...sections.map((s) => new Set(shown(s.name).map((p) => p.b)).size));
  const head = (s: Pairings["sections"][number]) => (
    <Box
      sx={{
        display: "flex",
        alignItems: "baseline",
        gap: 1.25,
        borderBottom: `2px solid ${grey.ink}`,
        mb: 0.75,
        pb: 0.25,
      }}
    >
      <Typography variant="h3">{s.name}</Typography>
      <Typography variant="body2" sx={{ color: grey.third, flex: 1 }}>
        {got.pairs.some((p) => p.section === s.name)
          ? s.section
            ? roleWords[s.name]
            : ""
          : "no pairing here"}
      </Typography>
      {covers.on ? (
        <Commit
          pairs={covers.guesses.said(shown(s.name).filter(covers.over))}
          guesses={covers.guesses}
        />
      ) : (
        <Plan pairs={shown(s.name)} marks={marks} />
      )}
    </Box>
  );
  const cells = (s: Pairings["sections"][number]) =>
    shown(s.name).map((p) => (
      <OneCell
        key={`${p.a}~${p.b}`}
        pair={p}
        paints={paints}
        open={few || opened === `${p.a}~${p.b}`}
        large={few}
        marks={marks}
        covers={covers}
        onOpen={() => onOpen(p)}
      />
    ));
  return (
    <>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            md:
              look === "lean"
                ? `repeat(auto-fit, minmax(min(100%, ${widest * 100 + 120}px), 1fr))`
                : "repeat(3, minmax(0, 1fr))",
          },
          columnGap: 3,
          rowGap: 2,
        }}
      >
        {sections.map((s) => (
          <Box key={s.name} component="section" aria-label={s.name}>
            {head(s)}
            {look === "lean" ? (
              <Grid
                block={s}
                pairs={shown(s.name)}
                paints={paints}
                open={opened}
                covered={covers.over}
                onOpen={onOpen}
              />
            ) : (
              <Box role="list">{cells(s)}</Box>
            )}
          </Box>
        ))}
      </Box>
      {look === "sorted" &&
        others.map((s) => (
          <Box key={s.name} component="section" aria-label={s.name} sx={{ mt: 2 }}>
            {head(s)}
            <Box
              role="list"
              sx={{
                display: "grid",
                gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "repeat(3, minmax(0, 1fr))" },
                columnGap: 3,
                alignItems: "start",
              }}
            >
              {cells(s)}
            </Box>
          </Box>
        ))}
    </>
  );
}

function OneCell({
  covers,
  ...cell
}: {
  pair: PairingOfBoth;
  paints: Paints;
  open: boolean;
  large?: boolean;
  marks: Marks;
  covers: Covers;
  onOpen: () => void;
}) {
  return covers.over(cell.pair) ? (
    <CoveredCell {...cell} guesses={covers.guesses} />
  ) : (
    <Cell {...cell} guesses={covers.guesses} />
  );
}

/** Where a grid or map is shown, the opened pairing stands below it. */
function Apart({
  got,
  paints,
  marks,
  covers,
  opened,
  onOpen,
}: {
  got: Pairings;
  paints: Paints;
  marks: Marks;
  covers: Covers;
  opened: string;
  onOpen: (p: PairingOfBoth) => void;
}) {
  const pair = got.pairs.find((p) => `${p.a}~${p.b}` === opened);
  return (
    pair && (
      <Box role="list" sx={{ maxWidth: 560, mt: 1.5 }}>
        <OneCell
          pair={pair}
          paints={paints}
          open
          marks={marks}
          covers={covers}
          onOpen={() => onOpen(pair)}
        />
      </Box>
    )
  );
}

/** Commits every guess of a block that is whole. */
function Commit({ pairs, guesses }: { pairs: ReturnType<Guesses["said"]>; guesses: Guesses }) {
  if (pairs.length === 0) return null;
  return (
    <Button
      size="small"
      color="inherit"
      disabled={guesses.busy}
      onClick={() => guesses.commit(pairs)}
      sx={{ py: 0, minWidth: 0 }}
    >
      commit {pairs.length}
    </Button>
  );
}

/** Plans all that are not planned yet. */
function Plan({ pairs, marks }: { pairs: PairingOfBoth[]; marks: Marks }) {
  const left = pairs.filter((p) => marks.markOf(p) === "none");
  if (left.length === 0 || !marks.ready) return null;
  return (
    <Button
      size="small"
      color="inherit"
      onClick={() => marks.set(left, "to paint")}
      sx={{ py: 0, minWidth: 0 }}
    >
      plan {left.length}
    </Button>
  );
}

/** How many stand where; pressing one shows only those. */
function Checklist({
  got,
  marks,
  filter,
  onFilter,
}: {
  got: Pairings;
  marks: Marks;
  filter: keyof typeof filters;
  onFilter: (f: keyof typeof filters) => void;
}) {
  const counts: Record<Mark, number> = { none: 0, "to paint": 0, painted: 0, judged: 0 };
  for (const p of got.pairs) counts[marks.markOf(p)]++;
  const words = {
    all: `all ${got.pairs.length}`,
    none: `${counts.none} ${filters.none}`,
    "to paint": `${counts["to paint"]} ${filters["to paint"]}`,
    painted: `${counts.painted} painted`,
    judged: `${counts.judged} judged`,
  };
  const told = (["to paint", "painted", "judged"] as const).filter(
    (m) => counts[m] > 0 && m !== filter,
  );
  return (
    <OneOf
      label="checklist:"
      shown={[words[filter], ...told.map((m) => words[m])].join(", ")}
      of={choicesOf(words)}
      value={filter}
      onChoose={onFilter}
    />
  );
}

function Legend() {
  const item = { display: "flex", alignItems: "center", gap: 0.75 };
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, color: grey.third, fontSize: 12 }}>
      <Box sx={item}>
        <PairArrow side="toward" /> leans to its partner
      </Box>
      <Box sx={item}>
        <PairArrow side="away" /> leans away
      </Box>
      <Box sx={item}>
        <svg width={30} height={12} aria-hidden>
          <rect width={30} height={12} fill={grey.track} />
          <path d="M0 0 L30 4 V8 L0 12 Z" fill={grey.mark} />
        </svg>
        brightness left
      </Box>
      <Box sx={item}>
        <b>≠</b> the rule parts from it
      </Box>
    </Box>
  );
}

function title(got: Pairings): string {
  return `${counted(got.pairs.length)} pairing${got.pairs.length === 1 ? "" : "s"} of ${counted(got.paints.length).toLowerCase()} paints`;
}

function summary(got: Pairings): string {
  const sum = (k: "clean" | "quiet" | "softened" | "muddy" | "parted") =>
    got.sections.filter((s) => s.section).reduce((n, s) => n + s[k], 0);
  const parted = sum("parted");
  const quiet = sum("quiet") > 0 ? ` ${sum("quiet")} quiet,` : "";
  const rule =
    parted === 0
      ? "The rule of thumb puts them in the same order."
      : `The rule of thumb parts from it in ${parted}.`;
  return `Across the sections ${sum("clean")} clean,${quiet} ${sum("softened")} softened, ${sum("muddy")} muddy. ${rule}`;
}
