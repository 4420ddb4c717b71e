import { useState } from "react";

/** So many parts of a paint. */
export type InPile = { ref: string; parts: number };
type Pile = { history: InPile[][] };
type Piles = { piles: Pile[]; at: number };

export const mostInPile = 6;
const mostKept = 100;
const fresh: Piles = { piles: [{ history: [[]] }], at: 0 };

/**
 * The piles on the palette of a system: each with what it was before; kept in this browser. Before anything was laid
 * there, something to begin with.
 */
export function usePiles(wheel: number, begin: InPile[] = []) {
  const place = `gyrophane.piles.${wheel}`;
  const [kept, setAll] = useState(() => read(place));
  const all = kept ?? { piles: [{ history: [begin] }], at: 0 };
  const put = (next: Piles) => {
    localStorage.setItem(place, JSON.stringify(next));
    setAll(next);
  };
  const own = all.piles[all.at]!;
  const now = own.history[own.history.length - 1]!;
  const change = (next: InPile[]) =>
    put({
      ...all,
      piles: all.piles.map((p, i) =>
        i === all.at ? { history: [...p.history, next].slice(-mostKept) } : p,
      ),
    });
  return {
    now,
    count: all.piles.length,
    at: all.at,
    go: (at: number) => put({ ...all, at }),
    add: (more: InPile[]) => {
      const next = now.map((p) => ({ ...p }));
      for (const { ref, parts } of more) {
        const there = next.find((p) => p.ref === ref);
        if (there) there.parts += parts;
        else if (next.length < mostInPile) next.push({ ref, parts });
      }
      change(next.filter((p) => p.parts > 0));
    },
    canUndo: own.history.length > 1,
    undo: () =>
      put({
        ...all,
        piles: all.piles.map((p, i) => (i === all.at ? { history: p.history.slice(0, -1) } : p)),
      }),
    branch: () => put({ piles: [...all.piles, { history: [now] }], at: all.piles.length }),
    anew: () => put({ piles: [...all.piles, { history: [[]] }], at: all.piles.length }),
    wipe: () =>
      put(
        all.piles.length > 1
          ? { piles: all.piles.filter((_, i) => i !== all.at), at: Math.max(0, all.at - 1) }
          : fresh,
      ),
  };
}

function read(place: string): Piles | null {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? "null") as Piles | null;
    return kept?.piles[kept.at]?.history.length ? kept : null;
  } catch {
    return null;
  }
}

/** Parts as the server reads them. */
export const asked = (parts: InPile[]) => parts.map((p) => `${p.ref}=${p.parts}`);
