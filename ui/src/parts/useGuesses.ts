import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Settings } from "../api/client";
import { guessesQuery } from "../api/queries";
import { whole, type Expecting } from "./Expect";

type Pair = { a: string; b: string; key: string };

/** What was said of pairings, and guesses that are not committed yet. */
export function useGuesses(wheel: number, settings: Settings) {
  const queries = useQueryClient();
  const kept = useQuery(guessesQuery);
  const [drafts, setDrafts] = useState<Record<string, Expecting>>({});
  const [lifted, setLifted] = useState<string[]>([]);
  const commit = useMutation({
    mutationFn: (pairs: Pair[]) =>
      answer(
        client.POST("/api/guesses", {
          params: { query: { wheel, spacing: settings.choices.spacing } },
          body: pairs.map(({ a, b, key }) => ({ a, b, ...whole(drafts[key] ?? {})! })),
        }),
      ),
    onSuccess: (all, pairs) => {
      queries.setQueryData(guessesQuery.queryKey, all);
      setDrafts(
        Object.fromEntries(
          Object.entries(drafts).filter(([key]) => !pairs.some((p) => p.key === key)),
        ),
      );
    },
    onError: () => void queries.invalidateQueries(guessesQuery),
  });
  const of = (p: { key: string }) => kept.data?.guesses.find((g) => g.key === p.key);
  return {
    ready: kept.data !== undefined,
    hues: kept.data?.hues ?? [],
    each: kept.data?.each ?? 0,
    of,
    /** Whether a pairing is still under its cover, when covers are on. */
    covered: (p: { key: string }) => !of(p) && !lifted.includes(p.key),
    lift: (p: { key: string }) => setLifted([...lifted, p.key]),
    draft: (p: { key: string }): Expecting => drafts[p.key] ?? {},
    say: (p: { key: string }, e: Expecting) => setDrafts({ ...drafts, [p.key]: e }),
    said: (pairs: Pair[]) => pairs.filter((p) => !of(p) && whole(drafts[p.key] ?? {})),
    commit: (pairs: Pair[]) => commit.mutate(pairs),
    busy: commit.isPending,
    problem: commit.error?.message ?? null,
  };
}

export type Guesses = ReturnType<typeof useGuesses>;
