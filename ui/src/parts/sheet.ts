import type { BenchPlan, BenchRegion } from "../api/client";

/** Where the middle of a sector's wheel is drawn in a figure whose middle is that of the sheet. */
export function centreOf(
  plan: Pick<BenchPlan, "kind" | "width" | "height">,
  { shape: s }: Pick<BenchRegion, "shape">,
  scale: number,
): readonly [number, number] {
  if (plan.kind === "wheel") return [0, 0];
  return [(s.x - plan.width / 2) * scale, (s.y - plan.height / 2) * scale];
}
