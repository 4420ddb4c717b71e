import { useEffect, useLayoutEffect, useRef, useSyncExternalStore } from "react";
import type { Conditions, Schemas } from "../api/client";

/** A thing that can be held beside another: a step, a tube, a way, a wheel, or what was read of a sitting. */
export type Thing = {
  name: string;
  row: Schemas["HeldRow"];
  /** How it is looked at where it stands. */
  view: Conditions;
};

type Mixed = Pick<Schemas["Mixture"], "parts" | "plain">;

/** One colour of a thing, by the paints in it. */
export const placeOf = (name: string, m: Mixed): Schemas["HeldPlace"] => ({
  name,
  parts: (m.plain ?? m.parts).map((p) => `${p.paint}=${p.parts}`),
});

/** A whole wheel, its split primaries half by half. */
export const wheelThing = (
  name: string,
  wheel: number,
  slots: (Mixed & { name: string; empty: boolean; halves?: (Mixed & { name: string })[] })[],
  view: Conditions,
): Thing => ({
  name,
  view,
  row: {
    wheel,
    places: slots
      .filter((s) => !s.empty)
      .flatMap((s) =>
        s.halves?.length
          ? s.halves.map((h) => placeOf(`${s.name}, ${h.name}`, h))
          : [placeOf(s.name, s)],
      ),
  },
});

const place = "gyrophane.held";

type State = { held: Thing | null; atHand: readonly Thing[]; laid: Thing | null };
let state: State = { held: null, atHand: [], laid: null };
/** Who holds: what one painter took up is not shown to the next one in the same window. */
let holder: number | null = null;
const watching = new Set<() => void>();
const set = (next: Partial<State>) => {
  state = { ...state, ...next };
  for (const tell of watching) tell();
};

/** What is held, what can be taken up here, and what lies beside the held one. */
export const useHolding = () =>
  useSyncExternalStore(
    (tell) => {
      watching.add(tell);
      return () => watching.delete(tell);
    },
    () => state,
  );

/** Somebody else paints here, or nobody: they hold what they held. */
export function heldBy(painter: number | null) {
  if (painter === holder) return;
  holder = painter;
  let held: Thing | null = null;
  try {
    const kept = JSON.parse(sessionStorage.getItem(place) ?? "null") as {
      painter: number;
      thing: Thing;
    } | null;
    if (kept?.painter === painter) held = kept.thing;
  } catch {
    // what is kept there is not ours
  }
  set({ held, laid: null });
}

/** Takes a thing up; none puts the held one back. */
export function hold(thing: Thing | null) {
  if (thing) sessionStorage.setItem(place, JSON.stringify({ painter: holder, thing }));
  else sessionStorage.removeItem(place);
  set({ held: thing, laid: null });
}

/** Lays a thing beside the one that is held; none ends it. */
export const lay = (thing: Thing | null) => set({ laid: thing });

const same = (a: Thing, b: Thing) => JSON.stringify(a.row) === JSON.stringify(b.row);

/** The one gesture: what is at hand is taken up, or laid beside what is held; put back where it is that. */
export function reach(thing = state.atHand[0]) {
  if (!thing) return;
  if (!state.held) hold(thing);
  else if (same(state.held, thing)) hold(null);
  else lay(thing);
}

/** Says what can be held where no hook can. */
export function AtHand({ things }: { things: (Thing | undefined | false)[] }) {
  useAtHand(things);
  return null;
}

/** Says what can be held at a place, what one looks at first; for as long as it is shown. */
export function useAtHand(things: (Thing | undefined | false)[]) {
  const now = things
    .filter((t): t is Thing => !!t)
    .map(({ view: { medium, light, judged }, ...t }) => ({
      ...t,
      view: { medium, light, judged },
    }));
  const key = JSON.stringify(now);
  const mine = useRef<readonly Thing[]>([]);
  useLayoutEffect(() => {
    mine.current = JSON.parse(key) as Thing[];
    set({ atHand: mine.current });
  }, [key]);
  useEffect(
    () => () => {
      if (state.atHand === mine.current) set({ atHand: [] });
    },
    [],
  );
}
