import { useId } from "react";
import { grey } from "./style";
import { useColours } from "./screen";
import type { Shown } from "./shapes";

/** A paint drawn down over a white card with a black stripe: masstone on top, a wash at the foot. */
export function DrawDown({
  paint,
  width,
  height,
}: {
  paint: { drawdown: { thickness: number; white: Shown; stripe: Shown }[] };
  width: number;
  height: number;
}) {
  const { cut, fill } = useColours();
  const id = useId();
  const last = paint.drawdown.length - 1;
  const [from, to] = [Math.round(width * 0.6), Math.round(width * 0.82)];
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden
      focusable="false"
      style={{ display: "block" }}
    >
      {(["white", "stripe"] as const).map((side) => (
        <linearGradient key={side} id={`${id}${side}`} x1="0" y1="0" x2="0" y2="1">
          {paint.drawdown.map((r, i) => (
            <stop key={r.thickness} offset={i / last} stopColor={fill(r[side])} />
          ))}
        </linearGradient>
      ))}
      <rect width={width} height={height} fill={`url(#${id}white)`} />
      <rect x={from} width={to - from} height={height} fill={`url(#${id}stripe)`} />
      {cut(paint.drawdown[0]!.white) && <path data-cut d="M3 3 H10 L3 10 Z" fill={grey.paper} />}
    </svg>
  );
}
