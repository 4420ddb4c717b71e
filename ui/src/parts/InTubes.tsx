import Typography from "@mui/material/Typography";
import { Word } from "./Word";

/** What most tubes ask for, and where to begin; why that is so is said on a press. */
export function InTubes({ says }: { says: string | undefined }) {
  if (!says) return null;
  return (
    <Typography variant="body2" aria-label="in most tubes">
      in <Word of="most tubes" /> {says}
    </Typography>
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
      <Word of="most tubes">{of.could ? "in some tubes" : "in most tubes"}</Word>
    </Typography>
  );
}
