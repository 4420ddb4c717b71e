import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link as To, useParams } from "react-router";
import { Word } from "./Word";

/** What most tubes ask for, and where to begin; why that is so is said on a press. */
export function InTubes({ says }: { says: string | undefined }) {
  if (!says) return null;
  return (
    <Typography variant="body2" aria-label="in most tubes">
      in <Word of="most tubes" more={<ToBeSurer />} /> {says}
    </Typography>
  );
}

/** The way to what would narrow the recipes of the wheel that is looked at. */
function ToBeSurer() {
  const { id } = useParams();
  if (!id) return null;
  return (
    <Box sx={{ mt: 1 }}>
      <To to={`/bench/${id}?sheet=swatches`}>what to paint to be surer</To>
    </Box>
  );
}

/** What a verdict could turn out as, where it is not sure. */
export function CouldTurnOut({
  of,
}: {
  of: { sure?: "sure" | "likely" | "either way"; could?: string };
}) {
  if (!of.could && of.sure !== "likely") return null;
  return (
    <Typography
      variant="caption"
      component="p"
      data-sure={of.sure}
      sx={{ maxWidth: 140, lineHeight: "15px" }}
    >
      {of.could ?? "likely"}{" "}
      <Word of="most tubes" more={<ToBeSurer />}>
        {of.could ? "in some tubes" : "in most tubes"}
      </Word>
    </Typography>
  );
}
