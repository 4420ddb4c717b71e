import { useQuery } from "@tanstack/react-query";
import type { PairMark } from "../api/client";
import { marksQuery } from "../api/queries";
import { marksThing, outbox, type PairToMark } from "../api/waiting";
import { newId } from "../api/writing";
import { keyOf } from "../parts/naming";
import { useOutbox } from "../parts/useUnsaved";
import type { Mark } from "./words";

const marksIn = (all: (PairMark | PairToMark)[]) =>
  all.map((m): [string, Mark] => [keyOf(m), m.mark]);

/** The marks of all pairings; set together, all or none. Those on their way lie over what is kept. */
export function useMarks() {
  const kept = useQuery(marksQuery);
  const { lines } = useOutbox();
  const waiting = lines[marksThing]?.waiting.flatMap((e) => e.body as PairToMark[]) ?? [];
  const of = new Map([...marksIn(kept.data ?? []), ...marksIn(waiting)]);
  const markOf = (p: { a: string; b: string }): Mark => of.get(keyOf(p)) ?? "none";
  return {
    ready: kept.data !== undefined,
    markOf,
    set: (pairs: { a: string; b: string }[], mark: Mark) => {
      const body = pairs.map((p): PairToMark => ({ a: p.a, b: p.b, mark, was: markOf(p) }));
      const what = pairs.length === 1 ? "one pairing" : `${pairs.length} pairings`;
      const says = mark === "none" ? `no mark for ${what}` : `${what} marked ${mark}`;
      outbox.hold(marksThing, [{ id: newId(), body, says, at: Date.now() }]);
    },
  };
}

export type Marks = ReturnType<typeof useMarks>;
