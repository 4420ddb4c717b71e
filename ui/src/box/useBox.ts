import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import {
  answer,
  client,
  Refused,
  type Box,
  type Conditions,
  type KeptTube,
  type TubeContent,
} from "../api/client";
import { boxQuery, isBoxQuery } from "../api/queries";
import { inTurn } from "../api/writing";
import { useOnce } from "../parts/useOnce";
import { useUnsaved } from "../parts/useUnsaved";

const thing = "box";

/** The box as it stands, saved as it changes. */
export function useBox(view: Conditions) {
  const queries = useQueryClient();
  const query = useQuery(boxQuery(view));
  const [problem, setProblem] = useState<string | null>(null);
  const [writing, setWriting] = useState(0);
  const { busy: undoing, once } = useOnce();
  const ofBox = { queryKey: ["box"], predicate: isBoxQuery };
  /** The box as it was last answered, under whatever light. */
  const known = () =>
    queries
      .getQueryCache()
      .findAll(ofBox)
      .filter((q) => q.state.data !== undefined)
      .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt)[0]?.state.data as
      Box | undefined;
  const adopt = (box: Box) => {
    // Reads that are under way may be older than what was just answered.
    void queries.cancelQueries(ofBox);
    queries.removeQueries({ ...ofBox, type: "inactive" });
    queries.setQueryData(boxQuery(view).queryKey, box);
    void queries.invalidateQueries({
      queryKey: ["box"],
      predicate: (q) => q.queryKey.join() !== boxQuery(view).queryKey.join(),
    });
    return box;
  };
  const look = () => void queries.invalidateQueries({ queryKey: ["box"] });
  const say = (e: unknown) => {
    if (!(e instanceof Refused && e.status === 409))
      setProblem(e instanceof Error ? e.message : String(e));
    look();
  };

  const { all, mine, waiting, change, write } = useUnsaved<TubeContent>("gyrophane.unsaved.box", {
    thing,
    known: () => {
      const box = known();
      const tubes = [...(box?.tubes ?? []), ...(box?.archived ?? [])];
      return (key) => {
        const t = tubes.find((one) => String(one.id) === key);
        return t && { content: t.content, version: t.version };
      };
    },
    send: async (key, { content, version, resolves }) => {
      adopt(
        await answer(
          client.PUT("/api/box/paints/{id}", {
            params: { path: { id: Number(key) }, query: view },
            body: { ...content, version, resolves },
          }),
        ),
      );
    },
    failed: (_, e) => say(e),
  });

  const counted = async <T>(asked: Promise<T>): Promise<T | null> => {
    setProblem(null);
    setWriting((n) => n + 1);
    try {
      return await asked;
    } catch (e) {
      say(e);
      return null;
    } finally {
      setWriting((n) => n - 1);
    }
  };
  const withUnsaved = (t: KeptTube): KeptTube => {
    const content = mine(String(t.id));
    return content ? { ...t, content } : t;
  };

  return {
    query,
    box: query.data && {
      ...query.data,
      tubes: query.data.tubes.map(withUnsaved),
      archived: query.data.archived.map(withUnsaved),
    },
    saved: Object.keys(all).length === 0 && writing === 0,
    waiting,
    problem,
    clear: () => setProblem(null),
    look,
    canUndo: !undoing && (Object.keys(all).length > 0 || !!query.data?.undo),
    change: (t: KeptTube, content: Partial<TubeContent>, resolves?: number) => {
      setProblem(null);
      change(String(t.id), t.content, { ...t.content, ...content }, resolves);
    },
    /** Adds paints; not sent again when the answer is lost, for they might come twice. */
    add: (paints: string[]) =>
      counted(
        inTurn(thing, async () =>
          adopt(
            await answer(
              client.POST("/api/box/paints", { params: { query: view }, body: { paints } }),
            ),
          ),
        ),
      ),
    undo: () =>
      once(() =>
        counted(
          write(() => {
            const undo = known()?.undo;
            if (!undo) return undefined;
            const body = { change: undo.change };
            return async () =>
              void adopt(
                await answer(client.POST("/api/box/undo", { params: { query: view }, body })),
              );
          }),
        ),
      ),
    letGo: (t: KeptTube, refused: number) =>
      void counted(
        write(
          () => async () =>
            void adopt(
              await answer(
                client.DELETE("/api/box/paints/{id}/refused/{refused}", {
                  params: { path: { id: t.id, refused }, query: view },
                }),
              ),
            ),
        ),
      ),
  };
}

export type OwnBox = ReturnType<typeof useBox>;
