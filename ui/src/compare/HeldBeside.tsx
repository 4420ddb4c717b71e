import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, constants, type KeptTube, type Shown } from "../api/client";
import { paintsQuery } from "../api/queries";
import { useColours } from "../drawing/screen";
import { HeldRibbons } from "../parts/HeldRibbons";
import { plainSettings } from "../parts/choices";
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
  const library = useQuery(paintsQuery(plainSettings));
  const black = library.data?.find((p) => p.id === "PBk9");
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
                <Begin
                  key={`${t.id} ${how}`}
                  name={`${nameOf(t)}${how === "undertone" ? ", its undertone" : ""}`}
                  colour={t.paint[how]}
                  onBegin={() => setFrom(t.paint[how].lab.join(","))}
                />
              )),
            )}
            {black?.ladder.map((rung) => (
              <Begin
                key={rung.share}
                name={`a grey, ${Math.round(100 * rung.share)} % black in white`}
                colour={rung}
                onBegin={() => setFrom(rung.srgb)}
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

/** A colour to begin at. */
function Begin({ name, colour, onBegin }: { name: string; colour: Shown; onBegin: () => void }) {
  const { fill } = useColours();
  return (
    <Box
      component="button"
      type="button"
      aria-label={name}
      onClick={onBegin}
      sx={{ width: 48, height: 48, p: 0, border: 0, cursor: "pointer", bgcolor: fill(colour) }}
    />
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
