import type { Ingredient, KeptTube, Paint } from "../api/client";

/** What a tube goes by: its nickname, or the paint's own name. */
export const nameOf = (t: KeptTube) => t.content.nickname || t.paint.name;

/** "to green 12°", or "centred". */
export function leanWords(lean: NonNullable<Paint["lean"]>): string {
  return lean.toward === "centred"
    ? "centred"
    : `to ${lean.toward} ${Math.abs(lean.degrees).toFixed(0)}°`;
}

/** A recipe in short: "12 PY65 : 3 PB29 (let down 1:9 in PY65)". */
export const inParts = (parts: Pick<Ingredient, "says">[]) => parts.map((p) => p.says).join(" : ");

/** A region's name without what tells the halves of a slot apart. */
export const slotName = (label: string): string => label.split(",")[0]!;

const small = [
  "No",
  "One",
  "Two",
  "Three",
  "Four",
  "Five",
  "Six",
  "Seven",
  "Eight",
  "Nine",
  "Ten",
  "Eleven",
  "Twelve",
  "Thirteen",
  "Fourteen",
  "Fifteen",
  "Sixteen",
  "Seventeen",
  "Eighteen",
  "Nineteen",
  "Twenty",
];

/** A number at the head of a sentence, in words up to twenty. */
export const counted = (n: number) => small[n] ?? String(n);

/** A pairing's name in the address and among the marks, whichever paint is named first. */
export const keyOf = (p: { a: string; b: string }) => [p.a, p.b].sort().join("~");

/** "no wash", "1 wash", "3 washes". */
export const washes = (n: number): string =>
  n === 0 ? "no wash" : n === 1 ? "1 wash" : `${n} washes`;

/** A share in percent. */
export const percent = (share: number): string => `${Math.round(100 * share)} %`;
