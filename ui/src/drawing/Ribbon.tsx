import { grey } from "./style";
import { useColours } from "./screen";
import type { Shown } from "./shapes";

/** A path laid straight: place is the way along it, thickness how much of the possible brightness is left. */
export function Ribbon({
  band,
  height = 36,
  middle = true,
}: {
  band: { at: number; retention: number; undertone: Shown }[];
  height?: number;
  middle?: boolean;
}) {
  const { fill } = useColours();
  const width = 364;
  const half = (retention: number) => Math.max(0.6, (retention * height) / 2);
  const y = height / 2;
  return (
    <svg
      width="100%"
      height={height + (middle ? 6 : 0)}
      viewBox={`0 0 ${width} ${height + (middle ? 6 : 0)}`}
      preserveAspectRatio="none"
      aria-hidden
      focusable="false"
      style={{ display: "block" }}
    >
      <rect width={width} height={height} fill={grey.track} />
      {band.slice(1).map((to, i) => {
        const from = band[i]!;
        const [x1, x2] = [width * from.at, width * to.at + (i < band.length - 2 ? 0.8 : 0)];
        const [a, b] = [half(from.retention), half(to.retention)];
        return (
          <path
            key={i}
            d={`M${x1} ${y - a} L${x2} ${y - b} L${x2} ${y + b} L${x1} ${y + a} Z`}
            fill={fill(to.undertone)}
          />
        );
      })}
      {middle && (
        <path d={`M${width / 2} ${height + 1} v5`} stroke={grey.second} strokeWidth={1.6} />
      )}
    </svg>
  );
}
