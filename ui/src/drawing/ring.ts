/** Points and sectors on a circle; angles in degrees, 0 on top, clockwise. */
export function point(cx: number, cy: number, r: number, angle: number): [number, number] {
  const a = ((angle - 90) * Math.PI) / 180;
  return [cx + r * Math.cos(a), cy + r * Math.sin(a)];
}

const at = (p: [number, number]) => `${p[0].toFixed(2)} ${p[1].toFixed(2)}`;

/** A sector of a ring between two angles, with an even gap (in px) to its neighbours. */
export function sector(
  cx: number,
  cy: number,
  inner: number,
  outer: number,
  from: number,
  to: number,
  gap = 0,
): string {
  const pad = (r: number) => ((gap / 2 / r) * 180) / Math.PI;
  const [i, o] = [pad(inner), pad(outer)];
  return (
    `M${at(point(cx, cy, outer, from + o))} A${outer} ${outer} 0 0 1 ${at(point(cx, cy, outer, to - o))} ` +
    `L${at(point(cx, cy, inner, to - i))} A${inner} ${inner} 0 0 0 ${at(point(cx, cy, inner, from + i))} Z`
  );
}

/** A four-sided piece of a band whose inner edge moves from one radius to another. */
export function piece(
  cx: number,
  cy: number,
  outer: number,
  from: number,
  to: number,
  innerFrom: number,
  innerTo: number,
): string {
  return (
    `M${at(point(cx, cy, outer, from))} L${at(point(cx, cy, outer, to))} ` +
    `L${at(point(cx, cy, innerTo, to))} L${at(point(cx, cy, innerFrom, from))} Z`
  );
}
