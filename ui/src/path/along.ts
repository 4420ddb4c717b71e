import type { Pair, Schemas } from "../api/client";

/** A place of the way as it is drawn and spoken of: clean, or with a trace of a third paint in it. */
export type Place = Schemas["TaintedBand"];

/** The places of the way: clean, or with one of the shares of the third paint that were worked out. */
export function placesOf(pair: Pair, taint: number): Place[] {
  const tainted = pair.taints?.[taint];
  return tainted && tainted.share > 0 ? tainted.samples : pair.samples;
}

/** The share of the third paint at one of the places of its scale. */
export const shareOf = (pair: Pair, taint: number) => pair.taints?.[taint]?.share ?? 0;
