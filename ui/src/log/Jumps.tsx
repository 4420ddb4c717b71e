import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { useColours } from "../drawing/screen";

/** Steps that jump as they were painted, and the recipe that stands half way. */
export function Jumps({ of }: { of: Schemas["PaintedJump"][] }) {
  const { fill } = useColours();
  if (of.length === 0) return null;
  return (
    <Box component="ul" aria-label="jumps" sx={{ m: 0, mt: 1.5, p: 0, listStyle: "none" }}>
      {of.map((j) => (
        <Box
          component="li"
          key={`${j.from} ${j.to}`}
          sx={{ display: "flex", alignItems: "center", gap: 1.5, minHeight: 32 }}
        >
          {j.shown && <Box sx={{ width: 34, height: 24, flex: "none", bgcolor: fill(j.shown) }} />}
          <Typography>
            <b>
              {j.from} to {j.to} jumps.
            </b>{" "}
            {j.recipe
              ? `Half way stands ${j.recipe}.`
              : "Their paints are not two: no recipe stands between."}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
