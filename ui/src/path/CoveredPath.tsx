import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Pair } from "../api/client";
import { HueAndDrop, MudTrack, whole } from "../parts/Expect";
import { grey } from "../drawing/style";
import type { Guesses } from "../parts/useGuesses";

/** A way under its cover: what is expected of it is said before it is shown. */
export function CoveredPath({
  pair,
  called,
  guesses,
}: {
  pair: Pair;
  called: (ref: string) => string;
  guesses: Guesses;
}) {
  const draft = guesses.draft(pair);
  const of = `${called(pair.a.id)} to ${called(pair.b.id)}`;
  const say = (e: typeof draft) => guesses.say(pair, e);
  return (
    <Box
      component="section"
      aria-label="the covered way"
      sx={{ mt: 1, display: "flex", flexDirection: "column", gap: 2, maxWidth: 900 }}
    >
      <MudTrack
        of={of}
        from={pair.a.undertone}
        to={pair.b.undertone}
        value={draft}
        onSet={say}
        height={112}
      />
      <Box sx={{ maxWidth: 380, borderTop: `2px solid ${grey.ink}`, pt: 1 }}>
        <Typography variant="subtitle2">Half way between them it will be</Typography>
        <HueAndDrop of={of} hues={guesses.hues} value={draft} onSet={say} />
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Button
          variant="contained"
          size="large"
          disabled={!whole(draft) || guesses.busy}
          onClick={() => guesses.commit([{ a: pair.a.id, b: pair.b.id, key: pair.key }])}
        >
          commit and lift the cover
        </Button>
        <Button color="inherit" onClick={() => guesses.lift(pair)}>
          just lift it
        </Button>
      </Box>
      <Typography variant="caption">
        A guess is kept as it is, and scored: the hue, how bright it stays, and where the mud
        starts.
      </Typography>
    </Box>
  );
}
