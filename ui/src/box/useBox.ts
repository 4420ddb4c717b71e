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
import { boxQuery } from "../api/queries";
import { useOnce } from "../parts/useOnce";
import { useUnsaved } from "../parts/useUnsaved";

/** The box as it stands, saved as it changes. */
export function useBox(view: Conditions) {
  const queries = useQueryClient();
  const query = useQuery(boxQuery(view));
  const [problem, setProblem] = useState<string | null>(null);
  const { busy: undoing, once } = useOnce();

  const adopt = (box: Box) => {
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

  const { all, waiting, hold } = useUnsaved<TubeContent>(
    "gyrophane.unsaved.box",
    async (key, { content, version, resolves }) => {
      const id = Number(key);
      const box = adopt(
        await answer(
          client.PUT("/api/box/paints/{id}", {
            params: { path: { id }, query: view },
            body: { ...content, version, resolves },
          }),
        ),
      );
      return [...box.tubes, ...box.archived].find((t) => t.id === id)?.version ?? version;
    },
    (_, e) => say(e),
  );

  /** Runs a change of the whole box; true when it went well. */
  const ask = async (asked: Promise<Box>) => {
    setProblem(null);
    try {
      return adopt(await asked);
    } catch (e) {
      say(e);
      return null;
    }
  };
  const withUnsaved = (t: KeptTube): KeptTube => {
    const u = all[String(t.id)];
    return u ? { ...t, content: u.content } : t;
  };

  return {
    query,
    box: query.data && {
      ...query.data,
      tubes: query.data.tubes.map(withUnsaved),
      archived: query.data.archived.map(withUnsaved),
    },
    saved: Object.keys(all).length === 0,
    waiting,
    problem,
    clear: () => setProblem(null),
    look,
    change: (t: KeptTube, content: Partial<TubeContent>, resolves?: number) => {
      setProblem(null);
      const u = all[String(t.id)];
      hold(String(t.id), {
        content: { ...t.content, ...content },
        version: u?.version ?? t.version,
        resolves,
      });
    },
    add: (paints: string[]) =>
      ask(answer(client.POST("/api/box/paints", { params: { query: view }, body: { paints } }))),
    undoing,
    undo: () => {
      const undo = query.data?.undo;
      if (undo)
        once(() =>
          ask(
            answer(
              client.POST("/api/box/undo", {
                params: { query: view },
                body: { change: undo.change },
              }),
            ),
          ),
        );
    },
    letGo: (t: KeptTube, refused: number) =>
      void ask(
        answer(
          client.DELETE("/api/box/paints/{id}/refused/{refused}", {
            params: { path: { id: t.id, refused }, query: view },
          }),
        ),
      ),
  };
}

export type OwnBox = ReturnType<typeof useBox>;
