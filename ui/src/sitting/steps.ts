import type { Schemas, Sitting } from "../api/client";
import type { Done } from "./useSitting";

export type Action = Schemas["BenchAction"];

/** What leads to the painting of one region: what is done before it, and that. */
export type Step = { region: number; before: Action[]; paint?: Action };

/** The steps of the plan from here, one for each region that is left. */
export function stepsOf(s: Sitting): Step[] {
  const out: Step[] = [];
  let before: Action[] = [];
  for (const a of s.plan.actions) {
    if (a.kind === "lay out") continue;
    if (a.kind !== "paint") {
      before.push(a);
      continue;
    }
    out.push({ region: a.region, before, paint: a });
    before = [];
  }
  return out;
}

const told = { mix: "mixed", wash: "washed", rinse: "rinsed", water: "water changed" } as const;

/** What is told of an action that was done. */
export function doneOf(s: Sitting, a: Action): Done | undefined {
  if (!(a.kind in told)) return undefined;
  const kind = told[a.kind as keyof typeof told];
  return {
    kind,
    ...(kind === "mixed" && { region: s.plan.regions[a.region]?.id }),
    ...((kind === "mixed" || kind === "rinsed") && { well: a.well }),
    ...(kind === "washed" && { brush: a.brush, thorough: a.thorough }),
  };
}

/**
 * What one tap on "painted" says: what the plan has before it was done too, as long ago as it takes,
 * though not before what was told last.
 */
export function paintedOf(s: Sitting, step: Step, now: number): Done[] {
  const last = Math.max(
    Date.parse(s.began),
    ...s.places.map((p) => p.painted),
    ...s.wells.map((w) => w.since),
  );
  const room = Math.max(0, now - last);
  const whole = step.paint
    ? (step.paint.end - (step.before[0]?.start ?? step.paint.start)) * 60000
    : 0;
  const scale = whole > 0 ? Math.min(1, (0.9 * room) / whole) : 0;
  const ago = (a: Action) => (step.paint ? (step.paint.end - a.end) * 60000 * scale : 0);
  const before = step.before.flatMap((a) => {
    const done = doneOf(s, a);
    return done ? [{ ...done, ago: ago(a) }] : [];
  });
  // In the order in which they were done, also where no time was left between them.
  before.forEach((d, i) => (d.ago = Math.max(d.ago, before.length - i)));
  return [
    ...before,
    { kind: "painted", region: s.plan.regions[step.region]!.id, brush: step.paint?.brush ?? 1 },
  ];
}

/** The time of day. */
export const timeOf = (ms: number) =>
  new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** How long it still takes, in whole minutes or, at the end, seconds. */
export function leftOf(ms: number) {
  const seconds = Math.ceil(ms / 1000);
  return seconds > 90 ? `${Math.ceil(seconds / 60)} min` : `${Math.max(0, seconds)} s`;
}
