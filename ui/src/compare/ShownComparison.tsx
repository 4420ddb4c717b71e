import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { grey } from "../drawing/style";
import { AtHue } from "./AtHue";
import { Figures } from "./Figures";
import { Overlay } from "./Overlay";
import type { Comparison } from "./shapes";

/** A comparison as others see it: how far each system reaches, and what was decided where that is shown. */
export function ShownComparison({
  got,
  note,
  decision,
}: {
  got: Comparison;
  note?: string;
  decision?: string;
}) {
  const [bin, setBin] = useState(23); // yellow
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 420px) minmax(0, 1fr)" },
        gap: 3,
      }}
    >
      <Box>
        <Overlay got={got} bin={bin} forward={null} pair={0} onBin={setBin} />
        <AtHue got={got} bin={bin} says={`reach at ${got.hues[bin]}`} />
      </Box>
      <Box>
        <Typography sx={{ mb: 2 }}>{got.decides}</Typography>
        {decision && (
          <Typography sx={{ fontWeight: 500, whiteSpace: "pre-wrap" }}>{decision}</Typography>
        )}
        {note && (
          <Typography sx={{ color: grey.second, whiteSpace: "pre-wrap", mb: 2 }}>{note}</Typography>
        )}
        <Figures got={got} priced={got.systems.some((s) => s.price !== null)} />
      </Box>
    </Box>
  );
}
