import type { KeptTube, Tube } from "../api/client";

/** What a tube goes by: its nickname, or the paint's own name. */
export const nameOf = (t: KeptTube) => t.content.nickname || t.paint.name;

/** "leans to green 12°", or "centred". */
export function leanWords(lean: NonNullable<Tube["lean"]>): string {
  return lean.toward === "centred" ? "centred" : `to ${lean.toward} ${Math.abs(lean.degrees).toFixed(0)}°`;
}

/** Families in the plural, as headings. */
export const familyWords: Record<string, string> = {
  yellow: "yellows",
  orange: "oranges",
  red: "reds",
  magenta: "magentas",
  violet: "violets",
  blue: "blues",
  cyan: "blue-greens",
  green: "greens",
  earth: "earths",
  white: "whites",
  black: "blacks",
};

const small = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten", "Eleven", "Twelve", "Thirteen", "Fourteen", "Fifteen", "Sixteen", "Seventeen", "Eighteen", "Nineteen", "Twenty"];

/** "Fourteen paints". */
export const countWords = (n: number) => `${small[n] ?? n} paint${n === 1 ? "" : "s"}`;
