import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link as To, useLocation } from "react-router";
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

/** What most tubes may ask for beside what is laid out, on a line of its own. */
export function MayAsk({ of }: { of: Schemas["BenchAmount"][] }) {
  const more = of.filter((a) => a.moreMl > 0 && a.loads === 0);
  if (more.length === 0) return null;
  return (
    <Typography variant="body2" sx={{ mt: 1 }} aria-label="may be asked for still">
      Set aside for what <Word of="most tubes" /> may still ask:{" "}
      {more.map((a) => `${a.moreMl.toFixed(2)} ml of ${a.code}`).join(", ")}.
    </Typography>
  );
}

/** Where the doubt comes from, tube by tube, and the way to what would narrow it. */
function Doubts({ of }: { of: Confidence }) {
  const wheel = /^\/(?:wheel|pairings|path|bench)\/(\d+)/.exec(useLocation().pathname)?.[1];
  return (
    <>
      {(of.doubts ?? []).map((d) => (
        <Typography key={d.paint} variant="body2" sx={{ mt: 1 }}>
          <b>{d.name}</b>: {d.says}.
        </Typography>
      ))}
      {wheel && (
        <Box sx={{ mt: 1 }}>
          <To to={`/bench/${wheel}?sheet=swatches`}>what to paint to be surer</To>
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
