import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { constants, type Conditions } from "../api/client";
import { setMeasureOf, useMeasure } from "./useMeasure";

/** Asks a painter in watercolour once whether the paint is in tubes or in pans. */
export function TubesOrPans({ medium }: { medium: Conditions["medium"] }) {
  const { of } = useMeasure(medium);
  if (medium !== "watercolour" || of[medium]) return null;
  const choose = (measure: "looks" | undefined) =>
    setMeasureOf(medium, measure ?? constants.measures[medium]);
  const target = { minHeight: { xs: 56, md: 40 } };
  return (
    <Box
      role="group"
      aria-label="tubes or pans"
      sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1 }}
    >
      <Typography>Is your watercolour in tubes or in pans?</Typography>
      <Button color="inherit" variant="outlined" sx={target} onClick={() => choose(undefined)}>
        tubes
      </Button>
      <Button color="inherit" variant="outlined" sx={target} onClick={() => choose("looks")}>
        pans
      </Button>
    </Box>
  );
}
