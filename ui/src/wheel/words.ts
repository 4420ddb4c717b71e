import type { Ingredient } from "../api/client";

/** Parts as painters write them: "2 : 1", with a word for a let-down. */
export function ratio(parts: Ingredient[]): string {
  if (parts.length === 1) return parts[0]!.code;
  const numbers = parts.map((p) => p.parts).join(" : ");
  return parts.some((p) => p.letDown) ? `${numbers} let down` : numbers;
}

/** Parts as numbers alone, for a row of narrow swatches. */
export const counts = (parts: Ingredient[]) =>
  parts.length === 1 ? "pure" : parts.map((p) => p.parts).join(":");

/** Parts in words, for those who hear rather than see them. */
export function partsInWords(parts: Ingredient[]): string {
  return parts
    .map((p) => `${p.parts} ${p.name}${p.letDown ? `, let down 1 to ${p.letDown.parts}` : ""}`)
    .join(" to ");
}

/** Retention with two digits. */
export function share(retention: number): string {
  return retention.toFixed(2);
}
