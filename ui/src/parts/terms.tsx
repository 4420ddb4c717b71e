import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Paint } from "../api/client";
import { paintsQuery } from "../api/queries";
import { Drop, LeanMark, StrengthMark } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { grey } from "../drawing/style";
import { Both, Swatch } from "../drawing/Swatch";
import { plainSettings } from "./choices";

export type Term = { word: string; says: string; picture: ReactNode };

/** A paint of the library, drawn in some way. */
function Of({ paint, draw }: { paint: string; draw: (p: Paint) => ReactNode }) {
  const paints = useQuery(paintsQuery(plainSettings));
  const p = paints.data?.find((x) => x.id === paint);
  return p ? draw(p) : null;
}

const width = 200;

/** A ribbon on its track: as thick as what is left of the possible brightness. */
function Band({ left, mark }: { left: readonly number[]; mark?: number }) {
  const h = 36;
  const x = (i: number) => (width * i) / (left.length - 1);
  const edge = (side: 1 | -1) => left.map((r, i) => `${x(i)} ${h / 2 + (side * r * h) / 2}`);
  return (
    <svg width={width} height={h + 8} aria-hidden>
      <rect width={width} height={h} fill={grey.track} />
      <path d={`M${edge(-1).join(" L")} L${edge(1).reverse().join(" L")} Z`} fill={grey.mark} />
      {mark !== undefined && (
        <path d={`M${width * mark} ${h} v8`} stroke={grey.ink} strokeWidth={2} />
      )}
    </svg>
  );
}

/** Round and round: one outline inside another. */
function Outlines() {
  const ring = (r: (a: number) => number) =>
    Array.from({ length: 73 }, (_, i) => {
      const a = (i * Math.PI) / 36;
      return `${44 + r(a) * Math.sin(a)} ${44 - r(a) * Math.cos(a)}`;
    }).join(" L");
  return (
    <svg width={88} height={88} aria-hidden>
      <circle cx={44} cy={44} r={42} fill="none" stroke={grey.hairline} />
      <path d={`M${ring((a) => 34 + 6 * Math.cos(2 * a))} Z`} fill={grey.track} stroke={grey.ink} />
      <path
        d={`M${ring((a) => 26 + 9 * Math.sin(a))} Z`}
        fill="none"
        stroke={grey.ink}
        strokeWidth={1.6}
        strokeDasharray="6 4"
      />
    </svg>
  );
}

function Bars({ jumps, tall }: { jumps: readonly number[]; tall?: number }) {
  return (
    <svg width={168} height={42} aria-hidden>
      {jumps.map((j, i) => (
        <rect
          key={i}
          x={14 * i + 3}
          y={42 - 40 * j}
          width={8}
          height={40 * j}
          fill={i === tall ? grey.ink : grey.mark}
        />
      ))}
    </svg>
  );
}

/** Value 1 to 9. */
function Greys() {
  return (
    <svg width={180} height={44} aria-hidden>
      {Array.from({ length: 9 }, (_, i) => (
        <rect key={i} x={20 * i} width={20} height={44} fill={`lab(${10 * (i + 1)} 0 0)`} />
      ))}
    </svg>
  );
}

const even = [0.3, 0.34, 0.28, 0.32, 0.3, 0.27, 0.33, 0.3, 0.29, 0.34, 0.31, 0.3] as const;

/** The words that painters ask about, each with a sentence and a picture. */
export const terms = {
  masstone: {
    word: "masstone",
    says: "The colour of a paint straight from the tube, laid on thick: the upper end of its strip.",
    picture: (
      <Of paint="PB29" draw={(p) => <Swatch colour={p.masstone} plain width={96} height={44} />} />
    ),
  },
  undertone: {
    word: "undertone",
    says: "What a paint shows when it is drawn out thin or let down with white: the lower end of its strip. Hue and brightness are judged there, for dark paints hide both.",
    picture: <Of paint="PB29" draw={(p) => <Both paint={p} width={120} height={44} />} />,
  },
  "let down": {
    word: "let down",
    says: "Weakened with white, or with the other paint, so that a strong paint can be taken in parts a hand can measure. “5 : 1 let down” takes 1 part of the weakened pile.",
    picture: <Of paint="PB15:3" draw={(p) => <PaintStrip paint={p} width={width} height={40} />} />,
  },
  lean: {
    word: "lean",
    says: "The neighbour that a paint bends to: a blue to violet or to green. Two paints that lean to each other mix clean.",
    picture: (
      <Of
        paint="PB29"
        draw={(p) =>
          p.lean && (
            <Box sx={{ zoom: 2 }}>
              <LeanMark lean={p.lean} />
            </Box>
          )
        }
      />
    ),
  },
  strength: {
    word: "strength",
    says: "How far a little of a paint colours a lot of another. Modelled for its class; your tube may be half or twice as strong, and a sitting that was read says so.",
    picture: (
      <Box sx={{ zoom: 2 }}>
        <StrengthMark strength={4} />
      </Box>
    ),
  },
  drop: {
    word: "clean, quiet, softened, muddy",
    says: "How bright a mixture stays: a full drop is clean, a half one softened, a hollow one muddy. A small drop in a hollow one is quiet: as bright as its paints are, and they are quiet. Its outline is whole where that is sure, dashed where most tubes come out so, dotted where it may go either way.",
    picture: (["clean", "quiet", "softened", "muddy"] as const).map((v) => (
      <Drop key={v} verdict={v} height={34} />
    )),
  },
  "most tubes": {
    word: "most tubes",
    says: "Tubes of one pigment differ, in strength, in shade and in how clean they are: the library is modelled, typical of each class. In eight of ten tubes the parts lie within the range that is said, and a verdict is dashed where two of three come out so, dotted where it may go either way. Two swatches of your own tube narrow it: read with a meter, to a third.",
    picture: (
      <Box sx={{ display: "flex", gap: 2 }}>
        <Drop verdict="softened" height={34} />
        <Drop verdict="softened" sure="likely" height={34} />
        <Drop verdict="softened" sure="either way" height={34} />
      </Box>
    ),
  },
  possible: {
    word: "of the possible",
    says: "How much is left of the most brightness that any paint or pair of the library has at this hue, both judged in white: 1 is all of it, and the ribbon is as thick as that.",
    picture: <Band left={[1, 0.9, 0.6, 0.42, 0.44, 0.6, 0.9, 1]} mark={0.5} />,
  },
  reach: {
    word: "reach",
    says: "How bright a system comes, hue by hue, drawn as a ring: where its outline lies outside another’s it is the brighter one.",
    picture: <Outlines />,
  },
  forward: {
    word: "forward",
    says: "One system’s ring laid on top of the others and filled with its own colours, to see what it alone reaches.",
    picture: <Outlines />,
  },
  riding: {
    word: "riding along",
    says: "Paints that go with a system without being its primaries: a white for tints, a black for shades, one more for what you like.",
    picture: ["PW6", "PBk9", "PY43"].map((paint) => (
      <Of key={paint} paint={paint} draw={(p) => <PaintStrip paint={p} width={64} height={34} />} />
    )),
  },
  evenness: {
    word: "evenness",
    says: "How alike the steps round a wheel are: the middle one over the largest. At 1 all are alike; at 0.3 one is three times as large as most.",
    picture: <Bars jumps={even} />,
  },
  jump: {
    word: "jump",
    says: "A step that is much larger than the others: the eye stumbles there. A slot between, by other parts, mends it.",
    picture: <Bars jumps={even.map((j, i) => (i === 4 ? 0.95 : j))} tall={4} />,
  },
  value: {
    word: "value",
    says: "How light a colour is, from 0, black, to 10, white, whatever its hue: what is left when one squints. Key v shows every figure so.",
    picture: <Greys />,
  },
  misses: {
    word: "misses",
    says: "How far what was painted lies from what was computed, in the mean of its places (CIEDE2000): below 1 nobody sees it, 2 to 3 is a careful hand.",
    picture: (
      <svg width={112} height={44} aria-hidden>
        <path d="M20 22 H92" stroke={grey.mark} strokeDasharray="2 3" />
        <circle cx={20} cy={22} r={8} fill="none" stroke={grey.ink} strokeWidth={1.6} />
        <circle cx={92} cy={22} r={8} fill={grey.ink} />
      </svg>
    ),
  },
  spindle: {
    word: "spindle",
    says: "What a sitting says of a tube’s strength: it lies where the strength is most likely and is as wide as what the readings leave open. A thin long one says little.",
    picture: (
      <svg width={width} height={44} aria-hidden>
        <path d="M20 22 Q90 4 170 22 Q90 40 20 22 Z" fill={grey.ink} />
        <path d="M60 6 V38" stroke={grey.mark} strokeWidth={2} />
      </svg>
    ),
  },
} as const satisfies Record<string, Term>;
