import type { BenchPlan, BenchSettings } from "../api/client";

/** Minutes as an hour is read: "9 min", "1 h 07". */
export const minutes = (m: number): string => {
  const whole = Math.round(m);
  if (whole >= 48 * 60) return `${Math.round(whole / 1440)} days`; // a layer of oil dries for days
  return whole < 60
    ? `${whole} min`
    : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")}`;
};

/** A moment of the plan, as a clock that was set to nought at the beginning. */
export const clock = (m: number): string =>
  `${Math.floor(m / 60)}:${String(Math.floor(m % 60)).padStart(2, "0")}`;

/**
 * The wishes with one more: the one region is painted before the other. What was wished of the two
 * before is let go.
 */
export function wished(bench: BenchSettings, first: string, then: string): BenchSettings {
  const others = (bench.before ?? []).filter(
    (pair) => !(pair.includes(first) && pair.includes(then)),
  );
  return { ...bench, before: [...others, [first, then]] };
}

/** What moving a region to another place in the order asks for; undefined where it stays. */
export function moved(plan: BenchPlan, region: number, to: number): [string, string] | undefined {
  const from = plan.order.indexOf(region);
  const place = Math.max(0, Math.min(plan.order.length - 1, to));
  if (place === from) return undefined;
  const other = plan.regions[plan.order[place]!]!.id;
  const own = plan.regions[region]!.id;
  return place < from ? [own, other] : [other, own];
}

/** At whose pace it is planned, where that is the painter's own. */
export function ownPace(plan: BenchPlan): string {
  const says = [
    plan.ownHand && `mixing and painting take ${plan.ownHand} times as long as usual`,
    plan.ownDrying && `drying ${plan.ownDrying} times`,
  ].filter(Boolean);
  return says.length > 0 ? `At your own pace, as past sittings went: ${says.join(", ")}.` : "";
}
