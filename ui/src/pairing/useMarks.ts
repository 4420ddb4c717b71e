import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client } from "../api/client";
import { marksQuery } from "../api/queries";
import { keyOf } from "../parts/naming";
import type { Mark } from "./words";

/** The marks of all pairings; set together, all or none. */
export function useMarks() {
  const queries = useQueryClient();
  const kept = useQuery(marksQuery);
  const [problem, setProblem] = useState<string | null>(null);
  const of = new Map((kept.data ?? []).map((m) => [keyOf(m), m.mark]));
  const markOf = (p: { a: string; b: string }): Mark => of.get(keyOf(p)) ?? "none";
  const set = useMutation({
    mutationFn: ({ pairs, mark }: { pairs: { a: string; b: string }[]; mark: Mark }) =>
      answer(
        client.PUT("/api/pairings/marks", {
          body: pairs.map(({ a, b }) => ({ a, b, mark, was: markOf({ a, b }) })),
        }),
      ),
    onMutate: () => setProblem(null),
    onSuccess: (all) => queries.setQueryData(marksQuery.queryKey, all),
    onError: (e) => {
      setProblem(e.message);
      void queries.invalidateQueries(marksQuery);
    },
  });
  return {
    ready: kept.data !== undefined,
    markOf,
    set: (pairs: { a: string; b: string }[], mark: Mark) => set.mutate({ pairs, mark }),
    busy: set.isPending,
    problem,
  };
}

export type Marks = ReturnType<typeof useMarks>;
