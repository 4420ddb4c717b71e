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
import { adoptBox, boxKnown, boxTurn, tubeThing } from "../api/waiting";
import { inTurn } from "../api/writing";
import { useOnce } from "../parts/useOnce";
import { useOutbox, useUnsaved } from "../parts/useUnsaved";

const tubesKnown = () => {
  const box = boxKnown()?.box;
  return [...(box?.tubes ?? []), ...(box?.archived ?? [])];
};
const known = (key: string) => {
  const t = tubesKnown().find((one) => String(one.id) === key);
  return t && { content: t.content, version: t.version };
};
/** The box as it stands, saved as it changes. */
export function useBox(view: Conditions) {
  const queries = useQueryClient();
  const query = useQuery(boxQuery(view));
  const [problem, setProblem] = useState<string | null>(null);
  const [writing, setWriting] = useState(0);
  const { busy: undoing, once } = useOnce();
  const adopt = (box: Box) => adoptBox(view, box);
  const look = () => void queries.invalidateQueries({ queryKey: ["box"] });
  const say = (e: unknown) => {
    if (!(e instanceof Refused && e.status === 409))
      setProblem(e instanceof Error ? e.message : String(e));
    look();
  };

  const { lines } = useOutbox();
  const unsaved = Object.keys(lines).filter(
    (thing) => thing.startsWith(tubeThing("")) && lines[thing]!.waiting.length > 0,
  );
  const { mine, waiting, change, write } = useUnsaved<TubeContent>({
    thing: tubeThing,
    turn: boxTurn,
    known,
    says: (key) =>
      `${tubesKnown().find((t) => String(t.id) === key)?.paint.name ?? "a paint"} as you changed it`,
  });
  const keys = () => tubesKnown().map((t) => String(t.id));

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
    saved: unsaved.length === 0 && writing === 0,
    waiting,
    problem,
    clear: () => setProblem(null),
    look,
    canUndo: !undoing && (unsaved.length > 0 || !!query.data?.undo),
    change: (t: KeptTube, content: Partial<TubeContent>, resolves?: number) => {
      setProblem(null);
      change(String(t.id), t.content, { ...t.content, ...content }, resolves);
    },
    /** Adds paints; not sent again when the answer is lost, for they might come twice. */
    add: (paints: string[]) =>
      counted(
        inTurn(boxTurn, async () =>
          adopt(
            await answer(
              client.POST("/api/box/paints", { params: { query: view }, body: { paints } }),
            ),
          ),
        ),
      ),
    /** Adds tubes by the words on them. */
    addNamed: (names: string[]) =>
      counted(
        inTurn(boxTurn, async () =>
          adopt(
            await answer(
              client.POST("/api/box/named", { params: { query: view }, body: { names } }),
            ),
          ),
        ),
      ),
    /** Adds a tube without a name as the paint that it looks like. */
    addByLook: (paint: string) =>
      counted(
        inTurn(boxTurn, async () =>
          adopt(
            await answer(
              client.POST("/api/box/looks", { params: { query: view }, body: { paint } }),
            ),
          ),
        ),
      ),
    /** Takes another of the pigments behind the words on a tube for the one it has. */
    settle: (t: KeptTube, paints: string[]) =>
      counted(
        inTurn(boxTurn, async () =>
          adopt(
            await answer(
              client.POST("/api/box/{id}/name", {
                params: { path: { id: t.id }, query: view },
                body: { paints, version: t.version },
              }),
            ),
          ),
        ),
      ),
    undo: () =>
      once(() =>
        counted(
          write(keys, () => {
            const undo = boxKnown()?.box.undo;
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
          keys,
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
