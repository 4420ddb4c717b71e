import Typography from "@mui/material/Typography";
import { Link as To } from "react-router";
import type { Profile } from "../api/client";
import { Shell } from "./Shell";

/** What stands in the place of a thing that is not there, or is another painter's. */
export function Missing({
  painter,
  what,
  sentence,
  to,
  back,
}: {
  painter: Profile;
  /** "this sitting" */
  what: string;
  sentence: string;
  /** Where one goes on from here, and what that is called. */
  to: string;
  back: string;
}) {
  return (
    <Shell painter={painter} title={`${what} is not here`}>
      <Typography variant="h2">{what[0]!.toUpperCase() + what.slice(1)} is not here</Typography>
      <Typography sx={{ my: 2 }}>{sentence}</Typography>
      <To to={to}>{back}</To>
    </Shell>
  );
}
