import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { answer, client, constants, type KeptTube } from "../api/client";
import { fill } from "../drawing/screen";
import { grey } from "../drawing/style";
import { HeldRibbons } from "../parts/HeldRibbons";
import { labWords } from "../parts/colour";
import { nameOf } from "../parts/naming";
import { useRibbons } from "../parts/useRibbons";

/** A colour that somebody holds beside the screen: begun at the nearest of the box, then held in ribbons. */
export function HeldBeside({
  tubes,
  typed,
  onFound,
}: {
  tubes: KeptTube[];
  /** A colour that was typed already: it is begun at that. */
  typed: string;
  onFound: (look: string) => void;
}) {
  const [from, setFrom] = useState(typed);
  return (
    <Box component="section" aria-label="held beside the screen" sx={{ mt: 1, maxWidth: 720 }}>
      {!from ? (
        <>
          <Typography>
            Hold it beside the screen, on white, and press what comes nearest to it.
          </Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, mt: 1 }}>
            {tubes.flatMap((t) =>
              (["asPainted", "undertone"] as const).map((how) => (
                <Box
                  key={`${t.id} ${how}`}
                  component="button"
                  type="button"
                  aria-label={`${nameOf(t)}${how === "undertone" ? ", its undertone" : ""}`}
                  onClick={() => setFrom(t.paint[how].lab.join(","))}
                  sx={{
                    width: 48,
                    height: 48,
                    p: 0,
                    border: 0,
                    cursor: "pointer",
                    bgcolor: fill(t.paint[how]),
                  }}
                />
              )),
            )}
            {["30,0,0", "50,0,0", "70,0,0", "90,0,0"].map((lab) => (
              <Box
                key={lab}
                component="button"
                type="button"
                aria-label={`a grey of lightness ${lab.slice(0, 2)}`}
                onClick={() => setFrom(lab)}
                sx={{
                  width: 48,
                  height: 48,
                  p: 0,
                  border: `1px solid ${grey.hairline}`,
                  cursor: "pointer",
                  bgcolor: `lab(${lab.replaceAll(",", " ")})`,
                }}
              />
            ))}
          </Box>
        </>
      ) : (
        <Rounds from={from} onBack={() => setFrom("")} onFound={onFound} />
      )}
    </Box>
  );
}

function Rounds({
  from,
  onBack,
  onFound,
}: {
  from: string;
  onBack: () => void;
  onFound: (look: string) => void;
}) {
  const eye = useRibbons(`from ${from}`, constants.findRounds, (off, lab) =>
    answer(client.GET("/api/ribbons", { params: { query: { from, off, lab } } })),
  );
  return (
    <>
      <Typography role="status">
        {eye.round + 1} of {eye.rounds}: which way is it off? Draw each ribbon until what you hold
        disappears in it
      </Typography>
      {eye.error && <Typography role="alert">{eye.error.message}</Typography>}
      {eye.held && (
        <HeldRibbons
          of={eye.held}
          off={eye.off}
          height={72}
          beside="what you began at"
          onMove={eye.move}
        />
      )}
      <Box sx={{ display: "flex", gap: 2, mt: 1 }}>
        {!eye.last && (
          <Button variant="outlined" color="inherit" disabled={!eye.lab} onClick={eye.closer}>
            closer
          </Button>
        )}
        <Button
          variant={eye.last ? "outlined" : "text"}
          color="inherit"
          disabled={!eye.lab}
          onClick={() => eye.lab && onFound(labWords(eye.lab).replaceAll("−", "-"))}
        >
          take this colour
        </Button>
        <Button color="inherit" onClick={onBack}>
          begin at another
        </Button>
      </Box>
      <Typography variant="caption" component="p">
        A screen is not paint, and an eye is a coarse meter: a match made so is within a few units.
      </Typography>
    </>
  );
}
