import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Sitting } from "../api/client";
import { grey } from "../drawing/style";
import { HeldRibbons } from "../parts/HeldRibbons";
import { Second, Tap } from "./Pieces";
import { usePlaceRibbons } from "./usePlaceRibbons";
import type { Done } from "./useSitting";

/** A test swatch beside what is aimed at: how it looks is what is mended from. */
export function TestSwatch({
  sitting,
  id,
  onTell,
}: {
  sitting: Sitting;
  /** Of the place. */
  id: string;
  onTell: (done: Done) => void;
}) {
  const eye = usePlaceRibbons(sitting.id, id, true);
  return (
    <Box
      component="section"
      aria-label="a test swatch"
      sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}
    >
      <Typography sx={{ mb: 1 }}>
        {eye.error
          ? "How it looks can be said when in contact."
          : "Paint a little on white, hold it wet on the bar, and draw each ribbon until it disappears."}
      </Typography>
      {eye.held && <HeldRibbons of={eye.held} off={eye.off} height={64} onMove={eye.move} />}
      <Box sx={{ display: "flex", gap: 2, mt: 1, flexWrap: "wrap" }}>
        {eye.held && (
          <Second onClick={() => onTell({ kind: "tested", region: id, looks: eye.lab })}>
            {eye.moved ? "it looks like this" : "it looks as aimed"}
          </Second>
        )}
        {eye.held && (
          <Tap disabled={eye.last} onClick={eye.closer}>
            closer
          </Tap>
        )}
        <Tap onClick={() => onTell({ kind: "tested", region: id })}>just tested</Tap>
      </Box>
    </Box>
  );
}
