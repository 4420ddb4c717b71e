import { Box, Typography } from "@mui/material";
import { Swatch } from "./Swatch";
import { figures } from "./style";
import type { Shown } from "./shapes";

type Rung = Shown & { share: number; thickness: number; water: number; thick: string };

/** A colour let down with white or, each rung twice as thin as the one before, with water. */
export function Ladder({ rungs, height = 24 }: { rungs: Rung[]; height?: number }) {
  const water = rungs.at(-1)!.water > 0;
  return (
    <Box role="group" aria-label={water ? "thinned with water" : "let down with white"}>
      <Box sx={{ display: "flex", gap: "2px" }}>
        {rungs.map((r) => (
          <Box
            key={r.share + r.thickness}
            sx={{ flex: 1, minWidth: 0, textAlign: "center", lineHeight: 1.2 }}
            title={water ? inWords(r) : undefined}
          >
            <Swatch colour={r} plain height={height} />
            {water && (
              <>
                <Typography variant="caption" sx={{ display: "block", minHeight: "1lh" }}>
                  {r.thick}
                </Typography>
                <Typography variant="caption" sx={{ fontFamily: figures }}>
                  {Math.round(r.water)}
                </Typography>
              </>
            )}
          </Box>
        ))}
      </Box>
      {water && (
        <Typography variant="caption" sx={{ display: "block" }}>
          as thick as that, with so many parts of water to 1 of paint
        </Typography>
      )}
    </Box>
  );
}

function inWords(r: Rung) {
  const water = r.water ? `${Math.round(r.water)} of water to 1 of paint` : "no water";
  return r.thick ? `as thick as ${r.thick}, ${water}` : `a thin wash, ${water}`;
}
