import type { Ingredient } from "../api/client";
import type { InPile } from "./usePiles";

export const total = (parts: InPile[]) => parts.reduce((sum, p) => sum + p.parts, 0);

/** Ingredients as parts of paints alone: let-downs and what was stirred first, taken apart. */
export function plainParts(parts: Ingredient[]): InPile[] {
  const out: InPile[] = [];
  const add = (ref: string, n: number) => {
    const there = out.find((p) => p.ref === ref);
    if (there) there.parts += n;
    else out.push({ ref, parts: n });
  };
  for (const p of parts) {
    const of = p.of ?? [];
    const all = of.reduce((sum, o) => sum + o.parts, 0);
    if (of.length > 0) of.forEach((o) => add(o.paint, (p.parts * o.parts) / all));
    else if (p.letDown) {
      add(p.paint, p.parts / (p.letDown.parts + 1));
      add(p.letDown.paint, (p.parts * p.letDown.parts) / (p.letDown.parts + 1));
    } else add(p.paint, p.parts);
  }
  return out;
}
