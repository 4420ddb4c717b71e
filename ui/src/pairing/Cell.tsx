import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link as To, useParams } from "react-router";
import type { PairedPaint, PairingOfBoth } from "../api/client";
import { Said } from "../parts/Expect";
import type { Guesses } from "../parts/useGuesses";
import { CouldTurnOut, InTubes } from "../parts/InTubes";
import { inParts } from "../parts/naming";
import { Setting } from "../parts/Choice";
import { figures, grey } from "../drawing/style";
import { Drop, PairArrow } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { useColours } from "../drawing/screen";
import { Both, Swatch } from "../drawing/Swatch";
import { Value } from "../parts/Value";
import type { Marks } from "./useMarks";
import { markWords, ruleWords } from "./words";
import { VisuallyHidden } from "../parts/VisuallyHidden";

export type Paints = Map<string, PairedPaint>;

/** How far it has come: hollow to paint, half painted, full judged; nothing when not planned. */
export function MarkSign({ mark }: { mark: keyof typeof markWords }) {
  if (mark === "none") return <Box component="span" sx={{ width: 12, flex: "none" }} />;
  return (
    <svg width={12} height={12} role="img" aria-label={markWords[mark]} style={{ flex: "none" }}>
      <rect
        x={0.75}
        y={0.75}
        width={10.5}
        height={10.5}
        fill={mark === "judged" ? grey.ink : "none"}
        stroke={grey.ink}
        strokeWidth={1.5}
      />
      {mark === "painted" && <path d="M1 11 L11 1 V11 Z" fill={grey.ink} />}
    </svg>
  );
}

const name = {
  overflow: "hidden",
  textOverflow: "ellipsis",
  whiteSpace: "nowrap",
  fontSize: 13,
  fontWeight: 500,
} as const;

/** Both parents, and how each leans with regard to the other. */
export function Parents({ pair, a, b }: { pair: PairingOfBoth; a: PairedPaint; b: PairedPaint }) {
  return (
    <Box component="span" sx={{ display: "flex", alignItems: "center", gap: 0.75, height: 26 }}>
      <Both paint={a} />
      <Box component="span" sx={name}>
        {a.name}
      </Box>
      <Box component="span" sx={{ display: "flex", flex: "none" }}>
        {pair.leanA && <PairArrow side={pair.leanA} />}
        {pair.leanB && <PairArrow side={pair.leanB} right />}
        {!pair.leanA && <span aria-hidden>·</span>}
        <VisuallyHidden>with</VisuallyHidden>
      </Box>
      <Box component="span" sx={{ ...name, flex: 1 }}>
        {b.name}
      </Box>
      <Both paint={b} />
    </Box>
  );
}

/** One pairing: both parents, the way between them, what is left half way. Opens in place. */
export function Cell({
  pair,
  paints,
  open,
  large = false,
  marks,
  guesses,
  onOpen,
}: {
  pair: PairingOfBoth;
  paints: Paints;
  open: boolean;
  /** Drawn as large as there is room where there are few. */
  large?: boolean;
  marks: Marks;
  guesses: Guesses;
  onOpen: () => void;
}) {
  const { fill } = useColours();
  const [a, b] = [paints.get(pair.a)!, paints.get(pair.b)!];
  const mark = marks.markOf(pair);
  const parted = !pair.agrees;
  return (
    <Box
      role="listitem"
      sx={{
        borderBottom: `1px solid ${grey.hairline}`,
        pb: 0.75,
        mb: 0.75,
        borderLeft: open ? `4px solid ${grey.ink}` : 0,
        pl: open ? 1 : 0,
      }}
    >
      <Box
        component="button"
        aria-expanded={open}
        data-pair={`${pair.a}~${pair.b}`}
        data-sure={pair.sure}
        onClick={onOpen}
        sx={{
          display: "block",
          width: 1,
          p: 0,
          border: 0,
          bgcolor: "transparent",
          color: grey.ink,
          font: "inherit",
          textAlign: "left",
          cursor: "pointer",
        }}
      >
        <Parents pair={pair} a={a} b={b} />
        {pair.band && <Ribbon band={pair.band} height={large ? 96 : 36} />}
        <Box component="span" sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 24 }}>
          <Drop verdict={pair.verdict} sure={pair.sure} height={16} />
          <Box component="span" sx={{ fontSize: 13, fontWeight: 600 }}>
            {pair.noDifferent ? "no different" : pair.verdict}
          </Box>
          <Box component="span" sx={{ fontFamily: figures, fontSize: 13 }}>
            {pair.retention.toFixed(2)}
          </Box>
          <Box
            component="span"
            sx={{
              fontSize: 12,
              flex: 1,
              minWidth: 0,
              color: parted ? grey.ink : grey.third,
              fontWeight: parted ? 600 : 400,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {pair.middle.hueWord} · {ruleWords(pair)}
          </Box>
          <MarkSign mark={mark} />
          <VisuallyHidden>{markWords[mark]}</VisuallyHidden>
          <Box component="span" sx={{ display: "flex", gap: "1px", flex: "none" }}>
            {pair.ladder
              ?.filter((_, i) => i % 2 === 0)
              .slice(0, 4)
              .map((r) => (
                <svg key={r.share + r.thickness} width={12} height={14} aria-hidden>
                  <rect width={12} height={14} fill={fill(r)} />
                </svg>
              ))}
          </Box>
        </Box>
      </Box>
      {open && <Opened pair={pair} a={a} b={b} marks={marks} guesses={guesses} />}
    </Box>
  );
}

const thirds = ["violet-blue light", "green light", "red light"];

/** Why it comes so, what each takes of the light, the label, and how far it has come. */
function Opened({
  pair,
  a,
  b,
  marks,
  guesses,
}: {
  pair: PairingOfBoth;
  a: PairedPaint;
  b: PairedPaint;
  marks: Marks;
  guesses: Guesses;
}) {
  const { id } = useParams();
  const [first, rest] = parted(pair.because);
  const said = guesses.of(pair);
  const turned = said?.a === pair.b; // said of the way back
  const ratio = inParts(pair.middle.parts);
  return (
    <Box aria-label="why" sx={{ pt: 0.5, display: "flex", flexDirection: "column", gap: 1 }}>
      {said && (
        <Said
          said={said}
          outcome={said}
          each={guesses.each}
          from={turned ? b.name : a.name}
          to={turned ? a.name : b.name}
        />
      )}
      <Typography variant="body2">
        <b>{first}</b>
        {rest}
      </Typography>
      <CouldTurnOut of={pair} />
      {pair.parting && (
        <Typography variant="body2" sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}>
          {pair.parting}
        </Typography>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, 1fr)", gap: 1.5 }}>
        {thirds.map((third, t) => (
          <Box key={third}>
            <Typography variant="caption" component="p">
              {third}
            </Typography>
            {[a, b].map((p, i) => (
              <svg
                key={p.id}
                width="100%"
                height={8}
                role="img"
                aria-label={`the ${p.name} takes ${(100 * p.takes[t]!).toFixed(0)} percent`}
                style={{ display: "block" }}
              >
                <rect width="100%" height={6} fill={grey.track} />
                <rect
                  width={`${100 * p.takes[t]!}%`}
                  height={6}
                  fill={i === 0 ? grey.mark : grey.ink}
                />
              </svg>
            ))}
          </Box>
        ))}
      </Box>
      <Typography variant="caption">
        light taken: grey by the {a.name}, black by the {b.name}; lowest between the steps{" "}
        {pair.lowest.toFixed(2)}
      </Typography>
      <Box
        aria-label="swatch label"
        sx={{
          display: "flex",
          gap: 1,
          alignItems: "center",
          border: `1px solid ${grey.ink}`,
          p: 0.75,
        }}
      >
        <Swatch colour={pair.middle.asPainted} width={44} height={36} />
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="body2" sx={{ fontWeight: 500 }}>
            {a.name} × {b.name}
          </Typography>
          <Typography variant="caption" component="p" sx={{ fontFamily: figures }}>
            {ratio} · {pair.middle.words} · <Value of={pair.middle.asPainted} />
          </Typography>
        </Box>
      </Box>
      <InTubes of={pair} />
      <Box
        component={To}
        to={`/path/${id}?${new URLSearchParams({ a: pair.a, b: pair.b })}`}
        sx={{ color: grey.ink, fontWeight: 500, fontSize: 14, alignSelf: "flex-start" }}
      >
        follow the path
      </Box>
      <Setting
        label={`mark of ${a.name} with ${b.name}`}
        words={markWords}
        value={marks.markOf(pair)}
        onChoose={(m) => marks.set([pair], m)}
      />
    </Box>
  );
}

/** The first sentence, and what follows it. */
function parted(sentences: string): [string, string] {
  const end = sentences.indexOf(". ");
  return end < 0 ? [sentences, ""] : [sentences.slice(0, end + 1), sentences.slice(end + 1)];
}
