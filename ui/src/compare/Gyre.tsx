import { grey } from "../drawing/style";
import { Piece } from "../drawing/Ring";
import { fill } from "../drawing/screen";
import { angleOf, bins, outline, outlines, type Compared } from "./shapes";

const size = 200;
const c = size / 2;
const [inner, outer] = [34, 92];

/** One system's reach in its own colours, closed to a ring: broad where it stays bright. */
export function Gyre({ system, index, clean }: { system: Compared; index: number; clean: number }) {
  const r = (bin: number) => inner + system.reach[bin % bins]! * (outer - inner);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width="100%"
      style={{ display: "block", maxWidth: 220, margin: "0 auto" }}
      role="img"
      aria-label={`${system.name}: clean at ${Math.round(100 * system.cleanCoverage)} percent of the hues`}
    >
      <circle cx={c} cy={c} r={outer} fill="none" stroke={grey.hairline} />
      {system.shades.map(
        (shade, bin) =>
          shade.srgb && (
            <Piece
              key={bin}
              centre={[c, c]}
              outer={inner}
              ends={[
                { angle: angleOf(bin + 1) - 0.4, inner: r(bin + 1) },
                { angle: angleOf(bin), inner: r(bin) },
              ]}
              fill={fill(shade)}
            />
          ),
      )}
      <circle
        cx={c}
        cy={c}
        r={inner + clean * (outer - inner)}
        fill="none"
        stroke={grey.paper}
        strokeWidth={1.4}
        strokeDasharray="0.1 5"
        strokeLinecap="round"
      />
      <path
        d={outline(system.reach, c, inner, outer)}
        fill="none"
        stroke={grey.ink}
        strokeWidth={1.6}
        strokeDasharray={outlines[index]!.dash}
        strokeLinecap={outlines[index]!.cap}
      />
    </svg>
  );
}
