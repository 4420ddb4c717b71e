import type { Paint } from "../api/client";

/** A paint let down in even rungs, from masstone to a trace. */
export function PaintStrip({ paint, width = 84, height = 34 }: { paint: Paint; width?: number; height?: number }) {
  const mass = width * 0.34;
  const rung = (width - mass) / (paint.ladder.length - 1);
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden focusable="false">
      {paint.ladder.slice(1).map((r, i) => (
        <rect key={r.share + r.thickness} x={mass + i * rung} width={rung + 0.5} height={height} fill={r.srgb} />
      ))}
      <rect width={mass} height={height} fill={paint.asPainted.srgb} />
    </svg>
  );
}
