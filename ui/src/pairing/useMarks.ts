import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type PairMark } from "../api/client";
import { marksQuery } from "../api/queries";
import { inTurn } from "../api/writing";
import { keyOf } from "../parts/naming";
import type { Mark } from "./words";

const marksIn = (all: PairMark[] | undefined) =>
  new Map((all ?? []).map((m) => [keyOf(m), m.mark]));

/** The marks of all pairings; set together, all or none. */
export function useMarks() {
  const queries = useQueryClient();
  const kept = useQuery(marksQuery);
  const [problem, setProblem] = useState<string | null>(null);
  const of = marksIn(kept.data);
  const markOf = (p: { a: string; b: string }): Mark => of.get(keyOf(p)) ?? "none";
  const set = useMutation({
    mutationFn: ({ pairs, mark }: { pairs: { a: string; b: string }[]; mark: Mark }) =>
      inTurn("marks", async () => {
        const before = marksIn(queries.getQueryData(marksQuery.queryKey));
        const all = await answer(
          client.PUT("/api/pairings/marks", {
            body: pairs.map((p) => ({ ...p, mark, was: before.get(keyOf(p)) ?? "none" })),
          }),
        );
        // A read that is under way may be older than what was just answered.
        void queries.cancelQueries(marksQuery);
        queries.setQueryData(marksQuery.queryKey, all);
      }),
    onMutate: () => setProblem(null),
    onError: (e) => {
      setProblem(e.message);
      void queries.invalidateQueries(marksQuery);
    },
  });
  return {
    ready: kept.data !== undefined,
    markOf,
    set: (pairs: { a: string; b: string }[], mark: Mark) =>
      set.mutate({ pairs: pairs.map(({ a, b }) => ({ a, b })), mark }),
    busy: set.isPending,
    problem,
  };
}

export type Marks = ReturnType<typeof useMarks>;
