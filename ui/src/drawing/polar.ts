import { pointRadial } from "d3-shape";

/** Degrees, 0 on top and clockwise, as radians. */
export const radians = (angle: number) => (angle * Math.PI) / 180;

/** A point on a circle; its angle in degrees, 0 on top, clockwise. */
export function point(cx: number, cy: number, r: number, angle: number): [number, number] {
  const [x, y] = pointRadial(radians(angle), r);
  return [cx + x, cy + y];
}
