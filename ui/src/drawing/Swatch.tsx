import { grey } from "./style";
import type { Shown } from "./shapes";
import { useColours } from "./screen";

/** A patch of paint; a corner is cut where the screen shows less than the paint has, unless it is plain. */
export function Swatch({
  colour,
  plain = false,
  height,
  width = "100%",
}: {
  colour: Shown;
  plain?: boolean;
  height: number | string;
  width?: number | string;
}) {
  const { cut, fill } = useColours();
  return (
    <svg width={width} height={height} style={{ display: "block" }} aria-hidden>
      <rect width="100%" height="100%" fill={fill(colour)} />
      {!plain && cut(colour) && <path data-cut d="M4 4 H12 L4 12 Z" fill={grey.paper} />}
    </svg>
  );
}

/** Masstone and undertone of a paint, side by side. */
export function Both({
  paint,
  width = 18,
  height = width,
}: {
  paint: { masstone: Shown; undertone: Shown };
  width?: number;
  height?: number;
}) {
  const { fill } = useColours();
  return (
    <svg width={width} height={height} aria-hidden style={{ flex: "none" }}>
      <rect width={width / 2} height={height} fill={fill(paint.masstone)} />
      <rect x={width / 2} width={width / 2} height={height} fill={fill(paint.undertone)} />
    </svg>
  );
}
