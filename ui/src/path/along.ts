import type { Pair, Schemas } from "../api/client";

type Shown = Schemas["Shown"];

/** One place of the way as it is drawn: clean, or between two traces of a third paint. */
export type Drawn = { at: number; asPainted: Shown; undertone: Shown; retention: number };

/** The way with a share of the third paint in it; what lies between two computed shares is drawn between them. */
export function drawn(pair: Pair, share: number): Drawn[] {
  const clean = pair.samples.map(({ at, asPainted, undertone, retention }) => ({
    at,
    asPainted,
    undertone,
    retention,
  }));
  const taints = pair.taints ?? [];
  const above = taints.findIndex((t) => t.share >= share);
  if (share <= 0 || above < 0) return clean;
  const [from, to] = [taints[Math.max(0, above - 1)]!, taints[above]!];
  const f = to.share > from.share ? (share - from.share) / (to.share - from.share) : 1;
  return clean.map((c, i) => {
    const [x, y] = [from.samples[i]!, to.samples[i]!];
    return {
      at: c.at,
      asPainted: blend(x.asPainted, y.asPainted, f),
      undertone: blend(x.undertone, y.undertone, f),
      retention: x.retention + f * (y.retention - x.retention),
    };
  });
}

function blend(a: Shown, b: Shown, f: number): Shown {
  if (f >= 1) return b;
  const channel = (hex: string, i: number) => parseInt(hex.slice(1 + 2 * i, 3 + 2 * i), 16);
  const mix = (i: number) =>
    Math.round(channel(a.srgb, i) + f * (channel(b.srgb, i) - channel(a.srgb, i)));
  return {
    srgb: `#${[0, 1, 2].map((i) => mix(i).toString(16).padStart(2, "0")).join("")}`,
    clipped: a.clipped || b.clipped,
  };
}

/** A place of the way as parts, with a share of the third paint in it. */
export function partsAt(pair: Pair, sample: number, share: number): string[] {
  const s = pair.samples[sample]!.share;
  const parts = [
    { ref: pair.a.id, n: (1 - s) * (1 - share) },
    { ref: pair.b.id, n: s * (1 - share) },
    ...(share > 0 && pair.third ? [{ ref: pair.third.id, n: share }] : []),
  ];
  return parts.filter((p) => p.n > 0).map((p) => `${p.ref}=${p.n.toPrecision(6)}`);
}

/** What is said of a place; with a trace in it, what is said at the nearest share that was worked out. */
export function said(
  pair: Pair,
  sample: number,
  share: number,
): Pick<Pair["samples"][number], "verdict" | "hueWord" | "words"> {
  const taints = pair.taints ?? [];
  if (share <= 0 || taints.length === 0) return pair.samples[sample]!;
  return taints.reduce((a, b) => (Math.abs(b.share - share) < Math.abs(a.share - share) ? b : a))
    .samples[sample]!;
}

/** The sample nearest to a place. */
export function nearest(pair: Pair, at: number): number {
  let best = 0;
  pair.samples.forEach((s, i) => {
    if (Math.abs(s.at - at) < Math.abs(pair.samples[best]!.at - at)) best = i;
  });
  return best;
}

/** Where a share of the second paint stands along the way. */
export function atShare(pair: Pair, share: number): number {
  const i = pair.samples.findIndex((s) => s.share >= share);
  if (i <= 0) return i < 0 ? 1 : 0;
  const [a, b] = [pair.samples[i - 1]!, pair.samples[i]!];
  return a.at + ((share - a.share) / (b.share - a.share)) * (b.at - a.at);
}

/** The sample nearest to a share of the second paint. */
export function nearestShare(pair: Pair, share: number): number {
  return pair.samples.reduce(
    (best, s, n) =>
      Math.abs(s.share - share) < Math.abs(pair.samples[best]!.share - share) ? n : best,
    0,
  );
}
