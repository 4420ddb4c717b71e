import type { BenchPlan, BenchRegion, BenchSheet, Schemas } from "../api/client";
import { listIn } from "./useAddress";

type SheetKind = Schemas["SheetKind"];

/** How large a sheet is drawn that fills its place: a wheel 336 across where nothing lies beneath it. */
export const scaleOf = (plan: Pick<BenchPlan, "kind" | "width" | "height">) =>
  plan.kind === "wheel"
    ? Math.min(336 / plan.width, (plan.height > plan.width ? 366 : 412) / plan.height)
    : Math.min(500 / plan.width, 330 / plan.height);

/** Where the corner of a sheet is drawn in a figure about its middle, or the middle of its wheel. */
export function originOf(
  plan: Pick<BenchPlan, "kind" | "width" | "height">,
  scale: number,
): readonly [number, number] {
  if (plan.kind === "wheel") return [0, ((plan.width - plan.height) / 2) * scale];
  return [(-plan.width / 2) * scale, (-plan.height / 2) * scale];
}

/** Where the middle of a sector's wheel is drawn in a figure whose middle is that of the sheet. */
export function centreOf(
  plan: Pick<BenchPlan, "kind" | "width" | "height">,
  { shape: s }: Pick<BenchRegion, "shape">,
  scale: number,
): readonly [number, number] {
  const [x, y] = originOf(plan, scale);
  return [x + s.x * scale, y + s.y * scale];
}

/** What is to be painted, as an address says it. */
export function sheetIn(search: URLSearchParams, kind: SheetKind): BenchSheet {
  const whole = (name: string, most: number) => {
    const n = Number(search.get(name) ?? NaN);
    return Number.isInteger(n) && n >= 0 && n <= most ? n : undefined;
  };
  const word = (name: string) => search.get(name) ?? undefined;
  return {
    kind,
    slot: whole("slot", 11) ?? 0,
    section: whole("section", 2) ?? 0,
    steps: whole("steps", 11),
    without: listIn(search, "without"),
    with: listIn(search, "with"),
    a: word("a"),
    b: word("b"),
    earth: word("earth"),
    tube: word("tube"),
    bit: whole("bit", 11),
    film: Number(search.get("film")) || undefined, // what cannot be is refused by the core
    glaze: word("glaze"),
    readBy: word("readBy"),
    ofBox: word("ofBox") === "true" || undefined,
  };
}

/** The same in an address: a word that is not there is undefined. */
export function sheetAddress(sheet: BenchSheet): Record<string, string | undefined> {
  const number = (n?: number | null) => (n ? String(n) : undefined);
  return {
    sheet: sheet.kind === "wheel" ? undefined : sheet.kind,
    slot: number(sheet.slot),
    section: number(sheet.section),
    steps: number(sheet.steps),
    without: sheet.without?.join() || undefined,
    with: sheet.with?.join() || undefined,
    a: sheet.a,
    b: sheet.b,
    earth: sheet.earth || undefined,
    tube: sheet.tube || undefined,
    bit: sheet.bit === undefined ? undefined : String(sheet.bit),
    film: number(sheet.film),
    glaze: sheet.glaze || undefined,
    readBy: sheet.readBy || undefined,
    ofBox: sheet.ofBox ? "true" : undefined,
  };
}
