import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, client, Refused, type KeptWheel, type WheelContent } from "../api/client";
import { keptQuery } from "../api/queries";
import { adoptWheel, wheelThing } from "../api/waiting";
import { useOnce } from "./useOnce";
import { useUnsaved } from "./useUnsaved";

/**
 * A wheel as it stands, saved as it changes. A change made on an outdated
 * version is refused by the server, which keeps it beside the wheel.
 */
export function useKeptWheel(id: number) {
  const queries = useQueryClient();
  const kept = useQuery(keptQuery(id));
  const [problem, setProblem] = useState<string | null>(null);
  const [writing, setWriting] = useState(0);
  const { busy: undoing, once } = useOnce();
  const key = String(id);
  const look = useCallback(() => queries.getQueryData(keptQuery(id).queryKey), [queries, id]);
  const known = useCallback(() => {
    const w = look();
    return w && { content: contentOf(w), version: w.version };
  }, [look]);
  const failed = (e: unknown) => {
    if (!(e instanceof Refused && e.status === 409))
      setProblem(e instanceof Error ? e.message : String(e));
    void queries.invalidateQueries(keptQuery(id));
  };

  const { mine, waiting, change, write } = useUnsaved<WheelContent>({
    thing: useCallback(() => wheelThing(id), [id]),
    turn: wheelThing(id),
    known,
    says: () => `the wheel ${look()?.name ?? ""} as you changed it`,
  });
  const unsaved = mine(key);
  const content = unsaved ?? (kept.data && contentOf(kept.data));

  const ask = (prepare: () => (() => Promise<KeptWheel>) | undefined) => {
    setProblem(null);
    setWriting((n) => n + 1);
    return write(
      () => [key],
      () => {
        const asked = prepare();
        return asked && (async () => adoptWheel(await asked()));
      },
    )
      .catch(failed)
      .finally(() => setWriting((n) => n - 1));
  };

  return {
    query: kept,
    kept: kept.data,
    content,
    saved: !unsaved && writing === 0,
    waiting,
    problem,
    change: (next: WheelContent, resolves?: number) => {
      if (!content) return;
      setProblem(null);
      change(key, content, next, resolves);
    },
    canUndo: !undoing && (!!unsaved || (kept.data?.canUndo ?? false)),
    undo: () =>
      once(() =>
        ask(() => {
          const now = look();
          if (!now?.canUndo) return undefined;
          const body = { version: now.version };
          return () =>
            answer(client.POST("/api/wheels/{id}/undo", { params: { path: { id } }, body }));
        }),
      ),
    letGo: (refused: number) =>
      void ask(
        () => () =>
          answer(
            client.DELETE("/api/wheels/{id}/refused/{refused}", {
              params: { path: { id, refused } },
            }),
          ),
      ),
  };
}

function contentOf({ name, system, settings, archived }: KeptWheel): WheelContent {
  return { name, system, settings, archived };
}
