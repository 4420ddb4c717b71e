import type { Conditions, Reading, Shown } from "../api/client";

/** A swatch that was picked or measured: its reading, and how it looks. */
export type Read = { reading: Reading; colour: { lab: number[] } & Shown };

/** What somebody typed as a colour: three figures of CIELAB, or #rrggbb; null while it is neither. */
export function typedColour(text: string): Pick<Reading, "lab" | "hex"> | null {
  const t = text.trim();
  if (/^#?[0-9a-f]{6}$/i.test(t) && !/^\d+$/.test(t)) return { hex: t };
  if (/^#[0-9]{6}$/.test(t)) return { hex: t };
  const words = /[;\s]/.test(t)
    ? t
        .split(/[;\s]+/)
        .map((w) => (/^-?\d+,\d+,?$/.test(w) ? w.replace(",", ".") : w).replace(/,$/, ""))
    : t.split(",");
  const v = words.map(Number);
  return words.length === 3 && words.every((w) => w !== "") && v.every(Number.isFinite)
    ? { lab: [v[0]!, v[1]!, v[2]!] }
    : null;
}

/** A typed colour as a reading. */
export function typedReading(
  text: string,
  { medium, judged }: Pick<Conditions, "medium" | "judged">,
): Reading | null {
  const c = typedColour(text);
  return c && { ...c, source: "eye", medium, judged };
}

/** CIELAB in figures. */
export const labWords = (lab: number[]) =>
  lab.map((v) => v.toFixed(1).replace("-", "−")).join("  ");

/** A typed colour as the API takes it in an address; empty while it is none. */
export function colourInAddress(text: string): string {
  const c = typedColour(text);
  return c?.hex ?? c?.lab?.join(",") ?? "";
}
