import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, client, constants } from "../api/client";
import { classRoundQuery, type ClassRound, type Pairing, type Tally } from "../api/together";
import { figures, grey } from "../drawing/style";
import { typing } from "../parts/keys";
import { drops } from "./GuessDisk";

const quarters = ["first", "second", "third", "last"].map((n) => `in the ${n} quarter`);

type Ask = { of: "hues" | "verdicts" | "mud" | "noMud"; at: number; says: string; asks: string };

/** What is asked aloud, in its order. */
const asksOf = (hues: string[]): Ask[] => [
  ...hues.map((says, at) => ({ of: "hues" as const, at, says, asks: "which hue?" })),
  ...drops.map((says, at) => ({ of: "verdicts" as const, at, says, asks: "how bright?" })),
  { of: "noMud", at: 0, says: "it never turns muddy", asks: "where does the mud start?" },
  ...constants.mudQuarters.map((at, n) => ({
    of: "mud" as const,
    at,
    says: quarters[n]!,
    asks: "where does the mud start?",
  })),
];

const countOf = (hands: Tally, { of, at }: Ask): number =>
  of === "noMud" ? hands.noMud : hands[of][at]!;

const withCount = (hands: Tally, { of, at }: Ask, n: number): Tally =>
  of === "noMud" ? { ...hands, noMud: n } : { ...hands, [of]: hands[of].with(at, n) };

/** The teacher counts hands: digits for how many, arrows from one question to the next. */
export function HandsUp({
  round,
  pairing,
  onEnd,
}: {
  round: ClassRound;
  pairing: Pairing;
  onEnd: () => void;
}) {
  const queries = useQueryClient();
  const asks = asksOf(round.hues);
  const [at, setAt] = useState(0);
  const [hands, setHands] = useState(pairing.hands);
  /** Whether the next digit begins a number. */
  const [fresh, setFresh] = useState(true);
  const ask = asks[at]!;
  const count = countOf(hands, ask);
  const { queryKey } = classRoundQuery(round.id);
  const kept = useMutation({
    scope: { id: `hands of ${round.id}` }, // one after the other
    mutationFn: (all: Tally) => {
      const was = queries.getQueryData(queryKey)?.pairings[round.place]?.hands ?? pairing.hands;
      return answer(
        client.PUT("/api/class/rounds/{id}/hands", {
          params: { path: { id: round.id } },
          body: { place: round.place, was, hands: all },
        }),
      );
    },
    onSuccess: (now) => queries.setQueryData(queryKey, now),
    // Another window has counted: it goes on from what is there.
    onError: async () => {
      await queries.invalidateQueries({ queryKey });
      setHands(queries.getQueryData(queryKey)?.pairings[round.place]?.hands ?? pairing.hands);
    },
  });
  useEffect(() => {
    const set = (n: number) => {
      const all = withCount(hands, ask, Math.max(0, Math.min(999, n)));
      setHands(all);
      kept.mutate(all);
    };
    const go = (by: number) => {
      setAt((at + by + asks.length) % asks.length);
      setFresh(true);
    };
    const keys = (e: KeyboardEvent) => {
      if (typing(e)) return;
      if (/^\d$/.test(e.key)) {
        set(fresh ? Number(e.key) : 10 * count + Number(e.key));
        setFresh(false);
      } else if (e.key === "Backspace") {
        set(Math.floor(count / 10));
      } else if (e.key === "ArrowUp" || e.key === "+") set(count + 1);
      else if (e.key === "ArrowDown" || e.key === "-") set(count - 1);
      else if (["ArrowRight", "Enter", "PageDown", " "].includes(e.key)) go(1);
      else if (["ArrowLeft", "PageUp"].includes(e.key)) go(-1);
      else if (e.key === "Escape" || e.key === "h") onEnd();
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
  return (
    <Box component="section" aria-label="hands up">
      <Typography sx={{ fontSize: 18, color: grey.third }}>{ask.asks}</Typography>
      <Box role="status" sx={{ display: "flex", alignItems: "baseline", gap: 2 }}>
        <Typography sx={{ fontSize: 40, lineHeight: "50px", fontWeight: 500 }}>
          {ask.says}
        </Typography>
        <Typography aria-label="hands" sx={{ fontFamily: figures, fontSize: 40 }}>
          {count}
        </Typography>
      </Box>
      <Typography sx={{ mt: 1, color: grey.second }}>
        Digits count, ↑ and ↓ one more or less; → asks the next, ← the one before; Esc is enough.
        Hands come on top of what phones say.
      </Typography>
      <Typography variant="caption" component="p" sx={{ mt: 1 }}>
        {asks
          .filter((a) => countOf(hands, a) > 0)
          .map((a) => `${a.says} ${countOf(hands, a)}`)
          .join(" · ")}
      </Typography>
      {kept.error && (
        <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
          {kept.error.message}
        </Typography>
      )}
    </Box>
  );
}
