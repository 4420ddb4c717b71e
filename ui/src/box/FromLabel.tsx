import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useCallback, useEffect, useState } from "react";
import type { Conditions, Origin } from "../api/client";
import { grey } from "../drawing/style";
import { ColourField } from "../parts/ColourField";
import { typedReading } from "../parts/colour";
import { LabelField, Step, SwatchSurface } from "./Pieces";

/** The pigments a label names, less of a strong one, or fitted to one swatch. */
export function FromLabel({
  view,
  onOrigin,
}: {
  view: Conditions;
  onOrigin: (o: Origin | null) => void;
}) {
  const [pigments, setPigments] = useState<string[]>([]);
  const [surface, setSurface] = useState<Pick<Conditions, "medium" | "judged">>({
    medium: "acrylic",
    judged: "dry",
  });
  const [text, setText] = useState("");
  const hear = useCallback((ids: string[]) => setPigments(ids), []);
  const mass = typedReading(text, surface);
  const origin: Origin | null =
    pigments.length > 0 ? { kind: "label", pigments, ...(mass && { mass }) } : null;
  useEffect(() => onOrigin(origin));
  return (
    <Box>
      <Step n={1} title="The pigment codes on the label">
        <Box sx={{ mt: 1 }}>
          <LabelField
            view={view}
            label="what the label says"
            onPigments={hear}
            helper="PV23, PV19 or PB 15:3 / PW6; a label does not say how much of each"
          />
        </Box>
      </Step>
      <Step n={2} title="The colour of its masstone, if you have it">
        <Typography sx={{ color: grey.second, mb: 1 }}>
          Without it their shares are guessed, less of a strong one; with it they are fitted.
        </Typography>
        <Box sx={{ maxWidth: 320 }}>
          <ColourField
            label="masstone: CIELAB or #hex"
            text={text}
            onText={setText}
            ok={mass !== null}
          />
        </Box>
        <SwatchSurface value={surface} onChange={setSurface} />
      </Step>
    </Box>
  );
}
