import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { comparisonsQuery } from "../api/queries";
import { comparisonThing, outbox, type Told } from "../api/waiting";
import { newId } from "../api/writing";
import { useOutbox } from "../parts/useUnsaved";

export type Kept = Schemas["KeptComparison"];

/** A comparison that is kept, or on its way: then it cannot be written on yet. */
export type Shown = Kept & { waits: boolean; key: string };

/** The comparisons that are kept, what was told of them since laid over. */
export function useComparisons() {
  const kept = useQuery(comparisonsQuery);
  const { lines } = useOutbox();
  const waiting = (id: number) => lines[comparisonThing(id)]?.waiting ?? [];

  const fresh = waiting(0).map((e): Shown => {
    const { content } = e.body as Extract<Told, { kind: "keep" }>;
    const made = new Date(e.at).toISOString();
    return { ...content, id: 0, made, version: 0, waits: true, key: e.id };
  });
  const there = (kept.data ?? []).flatMap((c): Shown[] => {
    const told = waiting(c.id).map((e) => e.body as Told);
    if (told.some((t) => t.kind === "drop")) return [];
    const last = told.findLast((t) => t.kind === "note");
    return [{ ...c, ...last?.content, waits: told.length > 0, key: String(c.id) }];
  });

  const tell = (id: number, body: Told, says: string) =>
    outbox.hold(comparisonThing(id), [{ id: newId(), body, says, at: Date.now() }]);

  return {
    all: [...fresh.reverse(), ...there],
    keep: (content: Pick<Kept, "address" | "note" | "decision">) =>
      tell(0, { kind: "keep", content }, `the comparison ${quoted(content)}`),
    note: (id: number, content: Pick<Kept, "note" | "decision">, version: number) =>
      tell(id, { kind: "note", content, version }, `what you wrote ${quoted(content)}`),
    drop: (c: Kept) => tell(c.id, { kind: "drop" }, `taking away the comparison ${quoted(c)}`),
  };
}

function quoted({ note, decision }: Pick<Kept, "note" | "decision">) {
  const words = decision || note;
  if (!words) return "without a note";
  return words.length > 60 ? `“${words.slice(0, 60)} …”` : `“${words}”`;
}
