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
