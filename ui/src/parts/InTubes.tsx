import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link as To, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { Word } from "./Word";

type Confidence = Pick<Schemas["PairingOfBoth"], "sure" | "could" | "inTubes" | "doubts">;

/** What most tubes ask for, and where to begin; why that is so is said on a press. */
export function InTubes({ of }: { of: Confidence }) {
  if (!of.inTubes) return null;
  return (
    <Typography variant="body2" aria-label="in most tubes">
      in <Word of="most tubes" more={<Doubts of={of} />} /> {of.inTubes}
    </Typography>
  );
}

/** Where the doubt comes from, tube by tube, and the way to what would narrow it. */
function Doubts({ of }: { of: Confidence }) {
  const { id } = useParams();
  return (
    <>
      {(of.doubts ?? []).map((d) => (
        <Typography key={d.paint} variant="body2" sx={{ mt: 1 }}>
          <b>{d.name}</b>: {d.says}.
        </Typography>
      ))}
      {id && (
        <Box sx={{ mt: 1 }}>
          <To to={`/bench/${id}?sheet=swatches`}>what to paint to be surer</To>
        </Box>
      )}
    </>
  );
}

/** What a verdict could turn out as, where it is not sure. */
export function CouldTurnOut({ of }: { of: Confidence }) {
  if (!of.could && of.sure !== "likely") return null;
  return (
    <Typography
      variant="caption"
      component="p"
      data-sure={of.sure}
      sx={{ maxWidth: 140, lineHeight: "15px" }}
    >
      {of.could ?? "likely"}{" "}
      <Word of="most tubes" more={<Doubts of={of} />}>
        {of.could ? "in some tubes" : "in most tubes"}
      </Word>
    </Typography>
  );
}
