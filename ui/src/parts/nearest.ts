import type { Pair } from "../api/client";

/** The sample nearest to a place. */
export function nearest(pair: Pair, at: number): number {
  let best = 0;
  pair.samples.forEach((s, i) => {
    if (Math.abs(s.at - at) < Math.abs(pair.samples[best]!.at - at)) best = i;
  });
  return best;
}
