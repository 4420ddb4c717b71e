import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { PairingOfBoth } from "../api/client";
import { HueAndDrop, mudWords, MudTrack, whole } from "../parts/Expect";
import { grey } from "../drawing/style";
import type { Guesses } from "../parts/useGuesses";
import { Parents, type Paints } from "./Cell";

/** The lid on a ribbon. */
export function Lid({ height }: { height: number }) {
  return (
    <Box
      component="span"
      sx={{ display: "block", height, bgcolor: grey.track, border: `1px dashed ${grey.mark}` }}
    />
  );
}

/** A pairing under its cover: both parents, and what is expected of them. */
export function CoveredCell({
  pair,
  paints,
  open,
  guesses,
  onOpen,
}: {
  pair: PairingOfBoth;
  paints: Paints;
  open: boolean;
  guesses: Guesses;
  onOpen: () => void;
}) {
  const [a, b] = [paints.get(pair.a)!, paints.get(pair.b)!];
  const draft = guesses.draft(pair);
  const said = whole(draft);
  const both = `${a.name} with ${b.name}`;
  return (
    <Box
      role="listitem"
      sx={{
        borderBottom: `1px solid ${grey.hairline}`,
        pb: 0.75,
        mb: 0.75,
        borderLeft: open ? `4px solid ${grey.ink}` : 0,
        pl: open ? 1 : 0,
      }}
    >
      <Box
        component="button"
        aria-expanded={open}
        data-pair={`${pair.a}~${pair.b}`}
        aria-label={`${both}: covered`}
        onClick={onOpen}
        sx={{
          display: "block",
          width: 1,
          p: 0,
          border: 0,
          bgcolor: "transparent",
          color: grey.ink,
          font: "inherit",
          textAlign: "left",
          cursor: "pointer",
        }}
      >
        <Parents pair={pair} a={a} b={b} />
        {!open && <Lid height={36} />}
        <Box
          component="span"
          sx={{
            display: "flex",
            alignItems: "center",
            minHeight: 24,
            fontSize: 12,
            color: grey.third,
          }}
        >
          {said
            ? `you say ${said.hueWord}, ${said.verdict}, ${mudWords(said.mud, a.name, b.name)}`
            : "covered"}
        </Box>
      </Box>
      {open && (
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5 }}>
          <MudTrack
            of={both}
            from={a.undertone}
            to={b.undertone}
            value={draft}
            onSet={(e) => guesses.say(pair, e)}
          />
          <Typography variant="caption">half way between them it will be</Typography>
          <HueAndDrop
            of={both}
            hues={guesses.hues}
            value={draft}
            onSet={(e) => guesses.say(pair, e)}
          />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button
              variant="contained"
              disabled={!said || guesses.busy}
              onClick={() => guesses.commit([pair])}
            >
              commit and lift
            </Button>
            <Button color="inherit" onClick={() => guesses.lift(pair)}>
              just lift it
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
