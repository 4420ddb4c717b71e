import { useCallback, useSyncExternalStore, useState } from "react";
import { outbox, type Change } from "../api/waiting";
import { answered, inTurn, newId, rebased } from "../api/writing";

/** Documents that are changed as one types, and what is known of them. */
export type Documents<C> = {
  /** What one of them goes by in the outbox. */
  thing: (key: string) => string;
  /** What all writes to them take turns as. */
  turn: string;
  /** What this tab knows at the moment to be kept of one of them. */
  known: (key: string) => { content: C; version: number } | undefined;
  /** What a change of one is called. */
  says: (key: string) => string;
};

/** So many changes of a thing wait in line, each to be undone by itself; further ones go together. */
const mostInLine = 30;

/** What waits to be sent, as it changes. */
export const useOutbox = () => useSyncExternalStore(outbox.subscribe, outbox.get);

/**
 * Changes of documents on their way to the server, each a version of its own; they wait in the outbox.
 * Whatever else is written to them goes through `write`, in the same line.
 */
export function useUnsaved<C>({ thing, turn, known, says }: Documents<C>) {
  const { lines, lost } = useOutbox();
  const [writing, setWriting] = useState(false);

  const lineOf = (key: string) => lines[thing(key)];
  const last = (key: string) =>
    outbox.line(thing(key)).waiting.at(-1)?.body as Change<C> | undefined;

  /**
   * Writes in turn, after the changes of `keys` that wait. `prepare` says, when the turn has come,
   * what to ask for, if anything; changes that were made meanwhile are made on what comes of it.
   */
  const write = useCallback(
    (keys: () => string[], prepare: () => (() => Promise<void>) | undefined) => {
      const before = keys().map(
        (key) => [thing(key), new Set(outbox.line(thing(key)).waiting.map((e) => e.id))] as const,
      );
      return inTurn(turn, async () => {
        for (const [of, ids] of before) await outbox.through(of, ids);
        const ask = prepare();
        if (!ask) return;
        const were = new Map(keys().map((key) => [key, known(key)]));
        await answered(ask, setWriting);
        for (const [key, old] of were) {
          const now = known(key);
          const line = outbox.line(thing(key));
          if (!old || !now || old.version === now.version || line.waiting.length === 0) continue;
          const waiting = line.waiting.map((e) => {
            const change = e.body as Change<C>;
            const content = rebased(old.content, change.content, now.content);
            return { ...e, body: { ...change, content } };
          });
          outbox.set(thing(key), { ...line, version: now.version, waiting });
        }
      });
    },
    [thing, turn, known],
  );

  /** Changes a document from what was shown of it to `content`. */
  const change = (key: string, shown: C, content: C, resolves?: number) => {
    const kept = known(key);
    const line = outbox.line(thing(key));
    const now = last(key)?.content ?? kept?.content;
    const version = line.waiting.length > 0 ? line.version : kept?.version;
    if (now === undefined || version === undefined) return;
    const body: Change<C> = { content: rebased(shown, content, now), resolves };
    const entry = { id: newId(), body, says: says(key), at: Date.now() };
    // The first may be under way and is not touched.
    const before = line.waiting.length > mostInLine ? line.waiting.slice(0, -1) : line.waiting;
    outbox.replace(thing(key), { ...line, version, waiting: [...before, entry] });
  };

  /** What a document will be when all is saved. */
  const mine = (key: string): C | undefined =>
    (lineOf(key)?.waiting.at(-1)?.body as Change<C> | undefined)?.content;

  return { mine, waiting: lost || writing, change, write };
}
