import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { answered, changesAt, inTurn, newId, rebased, type Change } from "../api/writing";

/** How changes of some things are sent, and what is known of the things. */
export type Sending<C> = {
  /** What the writes of all these things take turns as. */
  thing: string;
  /** What this tab knows at the moment to be kept of each of them. */
  known: () => (key: string) => { content: C; version: number } | undefined;
  /** Sends a change and adopts the answer: what is kept now. */
  send: (key: string, change: Change<C> & { version: number }) => Promise<void>;
  /** Hears why a change was refused for good. */
  failed: (key: string, error: unknown) => void;
};

/** So many changes of a thing wait in line, each to be undone by itself; further ones go together. */
const mostInLine = 30;

/**
 * Changes on their way to the server, each a version of its own. While it cannot be reached they are
 * kept in the browser under `place`, also over a reload, and sent again. Whatever else is written to
 * the things goes through `write`, in the same line.
 */
export function useUnsaved<C>(place: string, sending: Sending<C>) {
  const unsaved = useMemo(() => changesAt<C>(place), [place]);
  const all = useSyncExternalStore(unsaved.subscribe, unsaved.get);
  const waiting = useSyncExternalStore(unsaved.subscribe, unsaved.waiting);
  const calls = useRef(sending);
  useEffect(() => {
    calls.current = sending;
  });

  /**
   * Writes in turn. `prepare` says, when the turn has come, what to ask for, if anything; changes
   * made meanwhile are made on what comes of it.
   */
  const write = useCallback(
    (prepare: () => (() => Promise<void>) | undefined) =>
      inTurn(sending.thing, async () => {
        const ask = prepare();
        if (!ask) return;
        const { known } = calls.current;
        const before = known();
        await answered(ask, unsaved.setWaiting);
        const after = known();
        for (const [key, { changes }] of Object.entries(unsaved.get())) {
          const [old, now] = [before(key), after(key)];
          if (!old || !now || old.version === now.version) continue;
          unsaved.hold(key, {
            version: now.version,
            changes: changes.map((c) => ({
              ...c,
              content: rebased(old.content, c.content, now.content),
            })),
          });
        }
      }),
    [unsaved, sending.thing],
  );

  const save = useCallback(
    (key: string, id: string) => {
      if (!unsaved.take(id)) return;
      void inTurn(sending.thing, async () => {
        const held = unsaved.get()[key];
        const change = held?.changes.find((c) => c.id === id);
        if (!held || !change) return; // it went with another
        const { send, known, failed } = calls.current;
        let refused: unknown;
        try {
          await answered(() => send(key, { ...change, version: held.version }), unsaved.setWaiting);
        } catch (e) {
          refused = e;
        }
        const left = unsaved.get()[key]?.changes.filter((c) => c.id !== id) ?? [];
        // What was made on a refused change is refused as one, and kept as one.
        unsaved.hold(
          key,
          refused
            ? { version: held.version, changes: left.slice(-1) }
            : { version: known()(key)?.version ?? held.version, changes: left },
        );
        if (refused) failed(key, refused);
      });
    },
    [unsaved, sending.thing],
  );

  // What an earlier page has left is sent by this one.
  useEffect(() => {
    void unsaved.inherit().then(() => {
      for (const [key, { changes }] of Object.entries(unsaved.get()))
        changes.forEach((c) => save(key, c.id));
    });
  }, [unsaved, save]);

  /** Changes a thing from what was shown of it to `content`. */
  const change = (key: string, shown: C, content: C, resolves?: number) => {
    const kept = calls.current.known()(key);
    const held = unsaved.get()[key];
    const now = held?.changes.at(-1)?.content ?? kept?.content;
    const version = held?.version ?? kept?.version;
    if (now === undefined || version === undefined) return;
    const next: Change<C> = { id: newId(), content: rebased(shown, content, now), resolves };
    const before = held?.changes ?? [];
    // The first may be under way and is not touched.
    const line = before.length > mostInLine ? before.slice(0, -1) : before;
    unsaved.hold(key, { version, changes: [...line, next] });
    save(key, next.id);
  };

  /** What a thing will be when all is saved. */
  const mine = (key: string): C | undefined => all[key]?.changes.at(-1)?.content;

  return { all, mine, waiting, change, write };
}
