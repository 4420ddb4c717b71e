import { useColours } from "./screen";
import type { Shown } from "./shapes";

/** A paint let down in even rungs, from masstone to a trace. */
export function PaintStrip({
  paint,
  width: wide = 84,
  height = 34,
}: {
  paint: { ladder: (Shown & { share: number; thickness: number })[]; asPainted: Shown };
  /** In px, or "100%" of where it stands. */
  width?: number | "100%";
  height?: number;
}) {
  const { fill } = useColours();
  const width = wide === "100%" ? 160 : wide;
  const mass = width * 0.34;
  const rung = (width - mass) / (paint.ladder.length - 1);
  return (
    <svg
      width={wide}
      height={height}
      preserveAspectRatio="none"
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden
      focusable="false"
    >
      {paint.ladder.slice(1).map((r, i) => (
        <rect
          key={r.share + r.thickness}
          x={mass + i * rung}
          width={rung + 0.5}
          height={height}
          fill={fill(r)}
        />
      ))}
      <rect width={mass} height={height} fill={fill(paint.asPainted)} />
    </svg>
  );
}
