import { Box, Typography } from "@mui/material";
import { Swatch } from "./Swatch";
import type { Shown } from "./shapes";

type Rung = Shown & { share: number; thickness: number; water: number; thick: string };

/** A colour let down with white or, each rung twice as thin as the one before, with water. */
export function Ladder({ rungs, height = 24 }: { rungs: Rung[]; height?: number }) {
  const water = rungs.at(-1)!.water > 0;
  return (
    <Box role="group" aria-label={water ? "thinned with water" : "let down with white"}>
      <Box sx={{ display: "flex", gap: "2px" }}>
        {rungs.map((r) => (
          <Box key={r.share + r.thickness} sx={{ flex: 1, minWidth: 0 }} title={thinned(r, water)}>
            <Swatch colour={r} plain height={height} />
            {water && (
              <Typography variant="caption" sx={{ display: "block", textAlign: "center" }}>
                {r.thick || Math.round(r.water)}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {water && (
        <Typography variant="caption">
          {rungs
            .filter((r) => r.thick)
            .map((r) => `${r.thick} ${Math.round(r.water) || "no"}`)
            .join(", ")}
          {": parts of water to 1 of paint"}
        </Typography>
      )}
    </Box>
  );
}

const thinned = (r: Rung, water: boolean) => {
  if (!water) return undefined;
  const parts = r.water ? `${Math.round(r.water)} of water to 1 of paint` : "no water";
  return r.thick ? `as thick as ${r.thick}, ${parts}` : `a thin wash, ${parts}`;
};
