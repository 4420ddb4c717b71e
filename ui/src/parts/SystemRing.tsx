import type { Schemas } from "../api/client";
import { Piece } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";

type Way = Schemas["Way"];

const size = 400;
const centre = [size / 2, size / 2] as const;
const outer = size / 2 - 4;
/** How thick all of the possible is drawn, and how much of the circle the roles stand in. */
const thick = 46;
const gap = 15;

/** The small wheel of a system: between its roles the ribbon of the two paints that face each other. */
export function SystemRing({ ways, pointed }: { ways: (Way | undefined)[]; pointed: Way[] }) {
  const { fill } = useColours();
  const shown = ways.map((w, k) => pointed.find((p) => p.section === k) ?? w);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width="100%"
      aria-hidden
      data-ring={pointed.length > 0 ? "pointed" : "present"}
      style={{ display: "block" }}
    >
      {shown.map((way, k) => {
        const angle = (at: number) => 120 * k + gap + (120 - 2 * gap) * at;
        const inner = (retention: number) => outer - Math.max(1.5, thick * retention);
        return (
          <g key={k}>
            <Piece
              centre={centre}
              outer={outer}
              ends={Array.from({ length: 25 }, (_, i) => ({
                angle: angle(i / 24),
                inner: outer - thick,
              }))}
              fill={grey.track}
            />
            {way?.band.slice(1).map((to, i) => {
              const from = way.band[i]!;
              if (to.at <= from.at) return null;
              return (
                <Piece
                  key={i}
                  centre={centre}
                  outer={outer}
                  ends={[
                    { angle: angle(from.at), inner: inner(from.retention) },
                    {
                      angle: angle(to.at) + (i < way.band.length - 2 ? 0.3 : 0),
                      inner: inner(to.retention),
                    },
                  ]}
                  fill={fill(to.undertone)}
                />
              );
            })}
            {way && <Half angle={angle(0.5)} />}
          </g>
        );
      })}
    </svg>
  );
}

/** Half way, where a section is judged. */
function Half({ angle }: { angle: number }) {
  const [x1, y1] = point(...centre, outer - thick - 3, angle);
  const [x2, y2] = point(...centre, outer - thick - 11, angle);
  return <path d={`M${x1} ${y1} L${x2} ${y2}`} stroke={grey.second} strokeWidth={1.6} />;
}
