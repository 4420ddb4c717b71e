import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { answer, client, Refused, type KeptWheel, type WheelContent } from "../api/client";
import { keptQuery, wheelsQuery } from "../api/queries";

/** A change that the server has not confirmed yet, and the version it was made on. */
type Unsaved = { content: WheelContent; version: number; resolves?: number };

const place = (id: number) => `gyrophane.unsaved.${id}`;

function remembered(id: number): Unsaved | null {
  try {
    return JSON.parse(localStorage.getItem(place(id)) ?? "null") as Unsaved | null;
  } catch {
    return null;
  }
}

/**
 * A wheel as it stands, saved as it changes. While the server cannot be
 * reached the change is kept in the browser, also over a reload, and tried
 * again. A change made on an outdated version is refused by the server, which
 * keeps it beside the wheel.
 */
export function useKeptWheel(id: number) {
  const queries = useQueryClient();
  const kept = useQuery(keptQuery(id));
  const [unsaved, setUnsaved] = useState<Unsaved | null>(() => remembered(id));
  const [problem, setProblem] = useState<string | null>(null);
  const [waiting, setWaiting] = useState(false);
  const [tries, setTries] = useState(0);
  const latest = useRef(unsaved);
  const inFlight = useRef(false);

  const hold = useCallback(
    (u: Unsaved | null) => {
      latest.current = u;
      setUnsaved(u);
      if (u) localStorage.setItem(place(id), JSON.stringify(u));
      else localStorage.removeItem(place(id));
    },
    [id],
  );

  const adopt = useCallback(
    (w: KeptWheel) => {
      queries.setQueryData(keptQuery(id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
    },
    [id, queries],
  );

  useEffect(() => {
    if (!unsaved || inFlight.current) return;
    inFlight.current = true;
    const { content, version, resolves } = unsaved;
    answer(client.PUT("/api/wheels/{id}", { params: { path: { id } }, body: { ...content, version, resolves } }))
      .then((w) => {
        adopt(w);
        setWaiting(false);
        const now = latest.current;
        hold(now && now.content !== content ? { content: now.content, version: w.version } : null);
      })
      .catch((e: unknown) => {
        if (e instanceof Refused && e.lost) {
          setWaiting(true);
          setTimeout(() => setTries((n) => n + 1), 1500);
          return;
        }
        hold(null);
        setWaiting(false);
        if (!(e instanceof Refused && e.status === 409)) setProblem(e instanceof Error ? e.message : String(e));
        return queries.invalidateQueries(keptQuery(id));
      })
      .finally(() => {
        inFlight.current = false;
      });
  }, [unsaved, tries, id, adopt, hold, queries]);

  const change = (content: WheelContent, resolves?: number) => {
    if (!kept.data) return;
    setProblem(null);
    hold({ content, version: latest.current?.version ?? kept.data.version, resolves });
  };

  const ask = (asked: Promise<KeptWheel>) =>
    void asked.then(adopt).catch((e: unknown) => {
      setProblem(e instanceof Error ? e.message : String(e));
      return queries.invalidateQueries(keptQuery(id));
    });

  return {
    query: kept,
    kept: kept.data,
    content: unsaved?.content ?? (kept.data && contentOf(kept.data)),
    saved: !unsaved,
    waiting,
    problem,
    change,
    canUndo: !unsaved && (kept.data?.canUndo ?? false),
    undo: () => {
      if (!kept.data || unsaved || !kept.data.canUndo) return;
      setProblem(null);
      ask(answer(client.POST("/api/wheels/{id}/undo", { params: { path: { id } }, body: { version: kept.data.version } })));
    },
    letGo: (refused: number) => ask(answer(client.DELETE("/api/wheels/{id}/refused/{refused}", { params: { path: { id, refused } } }))),
  };
}

function contentOf({ name, roles, settings }: KeptWheel): WheelContent {
  return { name, roles, settings };
}
