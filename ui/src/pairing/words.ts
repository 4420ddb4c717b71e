import type { PairingOfBoth } from "../api/client";

/** How far a painter has come with a pairing. */
export const markWords = {
  none: "not planned",
  "to paint": "to paint",
  painted: "painted",
  judged: "judged",
} as const;
export type Mark = keyof typeof markWords;

/** What the rule of thumb said, beside what came. */
export function ruleWords(p: PairingOfBoth): string {
  if (p.ruleOfThumb === "none") return "no rule of thumb";
  return `${p.agrees ? "rule" : "≠ rule"}: ${p.ruleOfThumb}`;
}
