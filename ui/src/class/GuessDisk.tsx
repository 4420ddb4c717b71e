import { useRef, type PointerEvent } from "react";
import type { Schemas } from "../api/client";
import type { Tally } from "../api/together";
import { Drop } from "../drawing/Marks";
import { point } from "../drawing/polar";
import { Sector } from "../drawing/Ring";
import { useColours } from "../drawing/screen";
import { grey, text } from "../drawing/style";
import type { Expecting } from "../parts/Expect";

type Face = Schemas["ClassFace"];
type ChromaticVerdict = Schemas["ChromaticVerdict"];

/** From the rim inward: how bright it stays. */
export const drops: ChromaticVerdict[] = ["clean", "quiet", "softened", "muddy"];

const rim = 150;
const ring = 28;
const centre = [0, 0] as const;
/** How far out the most said hue reaches beyond the rim. */
const most = 44;

/** Where a hue stands, degrees from the top clockwise: yellow up, then orange and red. */
const angleOf = (hue: number) => 120 - hue;

/**
 * The covered wheel: a press says at once which hue a mixture will have, by its angle, and how bright it stays, by how near it
 * is to the rim. Once the cover is lifted it shows what is so and, beyond the rim, how many said each hue.
 */
export function GuessDisk({
  hues,
  face,
  value,
  onSet,
  truth,
  lifted,
  tally,
}: {
  hues: string[];
  face: Face;
  value: Expecting;
  onSet?: (e: Expecting) => void;
  truth?: Schemas["ClassTruth"];
  lifted?: Schemas["ClassLifted"];
  tally?: Tally;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const { fill } = useColours();
  const place = (e: PointerEvent<SVGSVGElement>) => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix || !onSet) return;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const hue = 120 - (Math.atan2(at.x, -at.y) * 180) / Math.PI;
    const n = (Math.round(hue / 30) + 24) % 12;
    const k = Math.floor((rim - Math.hypot(at.x, at.y)) / ring);
    onSet({ ...value, hueWord: hues[n], verdict: drops[Math.max(0, Math.min(3, k))] });
  };
  const counted = tally && Math.max(1, ...tally.hues);
  const couldBe: string[] = truth ? (truth.couldBe ?? [truth.verdict]) : [];
  // What stands out is drawn last, so that its outline is whole.
  const cells = hues
    .flatMap((hue, n) =>
      drops.map((drop, k) => ({
        hue,
        drop,
        middle: angleOf(30 * n),
        outer: rim - ring * k,
        here: truth?.hueWord === hue && couldBe.includes(drop),
        said: value.hueWord === hue && value.verdict === drop,
      })),
    )
    .sort((a, b) => Number(a.here) + 2 * Number(a.said) - Number(b.here) - 2 * Number(b.said));
  return (
    <svg
      ref={svg}
      viewBox={tally ? "-276 -236 552 472" : "-226 -196 452 392"}
      width="100%"
      height="100%"
      fontFamily={text}
      role="img"
      aria-label={
        truth
          ? `it is ${truth.hueWord}, ${couldBe.join(" or ")}`
          : `the covered wheel: ${value.hueWord ?? "no hue"} and ${value.verdict ?? "no drop"} said`
      }
      style={{
        display: "block",
        overflow: "visible",
        touchAction: onSet ? "none" : undefined,
        cursor: onSet ? "crosshair" : undefined,
      }}
      onPointerDown={(e) => {
        if (!onSet) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        place(e);
      }}
      onPointerMove={(e) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) place(e);
      }}
    >
      {cells.map(({ hue, drop, middle, outer, here, said }) => {
        const [x, y] = point(0, 0, outer - ring / 2, middle);
        const high = said ? 21 : 12;
        return (
          <g key={`${hue} ${drop}`} data-cell={`${hue} ${drop}`}>
            <Sector
              centre={centre}
              inner={outer - ring}
              outer={outer}
              from={middle - 15}
              to={middle + 15}
              gap={1.6}
              fill={here && lifted ? fill(lifted.middle) : said ? grey.paper : grey.track}
              stroke={here || said ? grey.ink : grey.paper}
              strokeWidth={said ? 3 : here ? 2 : 1.2}
              strokeDasharray={here && couldBe.length > 1 ? "1.7 2.6" : undefined}
            />
            {!(here && lifted && !said) && (
              <g opacity={said ? 1 : 0.32}>
                <Drop verdict={drop} height={high} x={x - high * 0.4} y={y - high / 2} />
              </g>
            )}
          </g>
        );
      })}
      {tally &&
        hues.map(
          (hue, n) =>
            tally.hues[n]! > 0 && (
              <Sector
                key={hue}
                data-said={`${hue} ${tally.hues[n]}`}
                centre={centre}
                inner={rim + 5}
                outer={rim + 7 + (most * tally.hues[n]!) / counted!}
                from={angleOf(30 * n) - 11}
                to={angleOf(30 * n) + 11}
                fill={truth?.right.hues[n] ? grey.ink : grey.mark}
              />
            ),
        )}
      {[face.a, face.b].map(
        (p) =>
          p.turn !== null && <Dab key={p.id} at={angleOf(p.turn)} colour={fill(p.undertone)} />,
      )}
      {hues.map((hue, n) => (
        <HueName
          key={hue}
          name={hue}
          count={tally?.hues[n]}
          angle={angleOf(30 * n)}
          r={tally ? rim + most + 16 : rim + 20}
          heavy={hue === value.hueWord || hue === truth?.hueWord}
        />
      ))}
    </svg>
  );
}

/** A hue's name beyond the rim, in two lines where it has two words, and how many said it. */
function HueName({
  name,
  count,
  angle,
  r,
  heavy,
}: {
  name: string;
  count: number | undefined;
  angle: number;
  r: number;
  heavy: boolean;
}) {
  const [x, y] = point(0, 0, r, angle);
  const side = Math.sin((angle * Math.PI) / 180);
  const [first, second] = name.split("-");
  const lines = second ? [`${first}-`, second] : [first!];
  if (count) lines[lines.length - 1] += ` ${count}`;
  return (
    <text
      textAnchor={side > 0.2 ? "start" : side < -0.2 ? "end" : "middle"}
      fontSize={16}
      fontWeight={heavy ? 600 : 400}
      fill={grey.ink}
    >
      {lines.map((line, k) => (
        <tspan key={k} x={x} y={y + 5 + 17 * (k - (lines.length - 1) / 2)}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

/** Where a paint stands, just outside the rim. */
function Dab({ at, colour }: { at: number; colour: string }) {
  const [x, y] = point(0, 0, rim + 2, at);
  return <circle cx={x} cy={y} r={8.5} fill={colour} stroke={grey.paper} strokeWidth={2} />;
}
