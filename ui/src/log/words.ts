import type { Schemas } from "../api/client";

/** A day as it is read. */
export const day = (at: string) =>
  new Date(at).toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });

/** How often one thing is of another: "1.4 times". */
export const times = (ratio: number) => `${ratio.toFixed(ratio < 1 ? 2 : 1)} times`;

/** How much of a sitting was read, and how well it met what was computed. */
export function readWords(s: Schemas["OnShelf"]): string {
  if (s.read === 0)
    return s.painted === 0
      ? "nothing painted yet: as computed"
      : `${s.painted} of ${s.places.length} painted, none read: as computed`;
  const rest = s.places.length - s.read;
  return `${s.read} read${rest > 0 ? `, ${rest} as computed` : ""}; misses ${s.miss.toFixed(1)}`;
}
