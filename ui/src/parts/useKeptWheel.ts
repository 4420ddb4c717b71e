import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, Refused, type KeptWheel, type WheelContent } from "../api/client";
import { keptQuery, wheelsQuery } from "../api/queries";
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
  const { busy: undoing, once } = useOnce();
  const key = String(id);

  const adopt = (w: KeptWheel) => {
    queries.setQueryData(keptQuery(id).queryKey, w);
    void queries.invalidateQueries(wheelsQuery);
  };
  const look = () => void queries.invalidateQueries(keptQuery(id));

  const { all, waiting, hold } = useUnsaved<WheelContent>(
    `gyrophane.unsaved.system.${id}`,
    async (_, { content, version, resolves }) => {
      const w = await answer(
        client.PUT("/api/wheels/{id}", {
          params: { path: { id } },
          body: { ...content, version, resolves },
        }),
      );
      adopt(w);
      return w.version;
    },
    (_, e) => {
      if (!(e instanceof Refused && e.status === 409))
        setProblem(e instanceof Error ? e.message : String(e));
      look();
    },
  );
  const unsaved = all[key];

  const change = (content: WheelContent, resolves?: number) => {
    if (!kept.data) return;
    setProblem(null);
    hold(key, { content, version: unsaved?.version ?? kept.data.version, resolves });
  };

  const ask = (asked: Promise<KeptWheel>) =>
    asked.then(adopt).catch((e: unknown) => {
      setProblem(e instanceof Error ? e.message : String(e));
      look();
    });

  return {
    query: kept,
    kept: kept.data,
    content: unsaved?.content ?? (kept.data && contentOf(kept.data)),
    saved: !unsaved,
    waiting,
    problem,
    change,
    canUndo: !unsaved && !undoing && (kept.data?.canUndo ?? false),
    undo: () => {
      if (!kept.data || unsaved || !kept.data.canUndo) return;
      const { version } = kept.data;
      setProblem(null);
      once(() =>
        ask(
          answer(
            client.POST("/api/wheels/{id}/undo", { params: { path: { id } }, body: { version } }),
          ),
        ),
      );
    },
    letGo: (refused: number) =>
      void ask(
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
