import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Predictions, type Wheel } from "../api/client";
import { predictionsQuery } from "../api/queries";
import { HueAndDrop, type Expecting } from "../parts/Expect";
import { grey } from "../drawing/style";
import { Setting } from "../parts/Choice";

/** Commit a guess for each slot, then lift the cover. */
export function CoverCard({
  wheel,
  id,
  version,
  saved,
  predictions,
  onLift,
}: {
  wheel: Wheel;
  id: number;
  version: number;
  saved: boolean;
  predictions?: Predictions;
  onLift: () => void;
}) {
  const queries = useQueryClient();
  const [which, setWhich] = useState<"secondaries" | "all">("secondaries");
  const [guesses, setGuesses] = useState<Record<number, Expecting>>({});
  const mixed = wheel.slots
    .filter((s) => !s.empty && s.kind !== "primary" && (which === "all" || s.kind === "secondary"))
    .sort((a, b) => a.home - b.home);
  const done = (predictions?.predictions ?? []).filter((p) => p.version === version);
  const open = mixed.filter((s) => !done.some((p) => p.home === s.home));
  const said = open.flatMap(({ home }) => {
    const { hueWord, verdict } = guesses[home] ?? {};
    return hueWord && verdict ? [{ home, hueWord, verdict }] : [];
  });
  const ready = open.length > 0 && said.length === open.length;
  const commit = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/wheels/{id}/predictions", {
          params: { path: { id } },
          body: { version, guesses: said },
        }),
      ),
    onSuccess: (all) => {
      queries.setQueryData(predictionsQuery(id).queryKey, all);
      onLift();
    },
  });
  return (
    <Box
      component="section"
      aria-label="predictions"
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Typography variant="h2">What will it be?</Typography>
      <Typography sx={{ color: grey.second }}>
        Say for each slot which hue you expect and how bright it stays. Once committed a guess is
        kept as it is, and the cover comes off.
      </Typography>
      <Setting
        label="which slots"
        words={{ secondaries: "the secondaries", all: "every mixed slot" }}
        value={which}
        onChoose={setWhich}
      />
      {open.map((s) => (
        <Box key={s.home} sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 0.5 }}>
          <Typography variant="subtitle2">
            {s.name}{" "}
            <Box component="span" sx={{ fontWeight: 400, fontSize: 13, color: grey.third }}>
              of {s.paints.join(" and ")}
            </Box>
          </Typography>
          <HueAndDrop
            of={s.name}
            hues={wheel.hues}
            value={guesses[s.home] ?? {}}
            onSet={(e) => setGuesses({ ...guesses, [s.home]: e })}
          />
        </Box>
      ))}
      {open.length === 0 && (
        <Typography>
          All of these were predicted for these paints, and the cover has been lifted. Change a
          paint to guess again.
        </Typography>
      )}
      {commit.error && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {commit.error.message}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button
          variant="contained"
          size="large"
          disabled={!ready || !saved || commit.isPending}
          onClick={() => commit.mutate()}
        >
          commit and lift the cover
        </Button>
        <Button color="inherit" onClick={onLift}>
          just lift it
        </Button>
      </Box>
      {predictions && <Scores kept={predictions} />}
    </Box>
  );
}

/** What was predicted before, and how it came out. */
function Scores({ kept }: { kept: Predictions }) {
  if (kept.predictions.length === 0) return null;
  return (
    <Box>
      <Typography variant="caption" component="p" sx={{ mt: 1 }}>
        kept predictions: {kept.points} of {kept.outOf} points
      </Typography>
      {kept.predictions.slice(0, 12).map((p, i) => (
        <Typography
          key={i}
          variant="body2"
          sx={{ borderTop: `1px solid ${grey.hairline}`, py: 0.25 }}
        >
          {p.name}: you said {p.hueWord}, {p.verdict}; it is {p.computed}, {p.came}. {p.points} of{" "}
          {kept.each}
        </Typography>
      ))}
    </Box>
  );
}
