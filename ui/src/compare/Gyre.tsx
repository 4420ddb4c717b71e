import { grey } from "../drawing/style";
import { Piece } from "../drawing/Ring";
import { useColours } from "../drawing/screen";
import { angleOf, bins, outline, outlines, type Compared } from "./shapes";

const size = 200;
const c = size / 2;
const [inner, outer] = [34, 92];

/**
 * One system's reach in its own colours, closed to a ring: broad where it stays bright. With its band the
 * reach of two in three sets of tubes lies between the grey lines.
 */
export function Gyre({
  system,
  index,
  clean,
  band,
}: {
  system: Compared;
  index: number;
  clean: number;
  band: boolean;
}) {
  const { fill } = useColours();
  const off = (by: number) =>
    system.reach.map((r, bin) => Math.min(1, Math.max(0, r + by * system.reachDeviation[bin]!)));
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
      {band && (
        <path
          d={`${outline(off(1), c, inner, outer)} ${outline(off(-1), c, inner, outer)}`}
          fill={grey.mark}
          fillRule="evenodd"
          fillOpacity={0.35}
          stroke={grey.mark}
          strokeWidth={0.6}
          data-band=""
        />
      )}
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
