import { counted } from "../parts/naming";

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

/** "Fourteen paints". */
export const countWords = (n: number) => `${counted(n)} paint${n === 1 ? "" : "s"}`;
