import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { grey } from "../drawing/style";
import { AtHue } from "./AtHue";
import { Differs } from "./Differs";
import { Figures } from "./Figures";
import { Gyre } from "./Gyre";
import { LineMark, Tubes } from "./Marks";
import { Overlay } from "./Overlay";
import { columnsOf, type Comparison } from "./shapes";

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
  const [pair, setPair] = useState(0);
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 420px) minmax(0, 1fr)" },
        gap: 3,
      }}
    >
      <Box>
        <Overlay got={got} bin={bin} forward={null} pair={pair} onBin={setBin} />
        <AtHue got={got} bin={bin} says={`reach at ${got.hues[bin]}`} />
        <Differs got={got} pair={pair} onPair={setPair} />
      </Box>
      <Box>
        <Typography sx={{ mb: 2 }}>{got.decides}</Typography>
        {decision && (
          <Typography sx={{ fontWeight: 500, whiteSpace: "pre-wrap" }}>{decision}</Typography>
        )}
        {note && (
          <Typography sx={{ color: grey.second, whiteSpace: "pre-wrap", mb: 2 }}>{note}</Typography>
        )}
        <Box sx={{ display: "grid", gridTemplateColumns: columnsOf(got.systems.length), mb: 1 }}>
          <span />
          {got.systems.map((s, i) => (
            <Box key={i} sx={{ minWidth: 0, pr: 1 }}>
              <LineMark index={i} />
              <Typography
                sx={{
                  fontSize: { xs: 12, sm: 15 },
                  lineHeight: { xs: "16px", sm: "20px" },
                  minHeight: { xs: 64, sm: 40 },
                  fontWeight: 600,
                  overflowWrap: "break-word",
                  hyphens: "auto",
                }}
              >
                {s.name}
              </Typography>
              <Box sx={{ minHeight: { xs: 24, sm: 0 } }}>
                <Tubes paints={s.paints} />
              </Box>
              <Gyre system={s} index={i} clean={got.cleanFrom} band={false} />
            </Box>
          ))}
        </Box>
        <Figures got={got} priced={got.systems.some((s) => s.price !== null)} />
      </Box>
    </Box>
  );
}
