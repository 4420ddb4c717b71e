import { arc, areaRadial } from "d3-shape";
import type { SVGProps } from "react";
import { radians } from "./polar";

type Shape = Omit<SVGProps<SVGPathElement>, "from" | "to" | "d" | "transform"> & {
  centre: readonly [number, number];
};

/** A sector of a ring between two angles, with an even gap (in px) to its neighbours. */
export function Sector({
  centre: [cx, cy],
  inner,
  outer,
  from,
  to,
  gap = 0,
  ...path
}: Shape & { inner: number; outer: number; from: number; to: number; gap?: number }) {
  const d = arc<null>()
    .innerRadius(inner)
    .outerRadius(outer)
    .startAngle(radians(from))
    .endAngle(radians(to))
    .padRadius(outer)
    .padAngle(gap / outer)
    .digits(2)(null);
  return <path {...path} transform={`translate(${cx} ${cy})`} d={d ?? undefined} />;
}

/** A piece of a band between two angles, whose inner edge moves from one radius to another. */
export function Piece({
  centre: [cx, cy],
  outer,
  ends,
  ...path
}: Shape & { outer: number; ends: { angle: number; inner: number }[] }) {
  const d = areaRadial<{ angle: number; inner: number }>()
    .angle((e) => radians(e.angle))
    .innerRadius((e) => e.inner)
    .outerRadius(outer)
    .digits(2)(ends);
  return <path {...path} transform={`translate(${cx} ${cy})`} d={d ?? undefined} />;
}
