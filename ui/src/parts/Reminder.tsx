import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To } from "react-router";
import { reminderQuery } from "../api/queries";

/** What the painter wanted to do otherwise when this wheel was painted last. */
export function Reminder({ wheel, but }: { wheel: number; but?: number }) {
  const got = useQuery({ ...reminderQuery(wheel), enabled: wheel > 0 });
  const last = got.data?.reminder;
  if (!last || last.sitting === but) return null;
  return (
    <Typography aria-label="reminder" sx={{ mt: 0.5, overflowWrap: "anywhere" }}>
      <b>From last time</b> (<To to={`/log/${last.sitting}`}>{said(last.at)}</To>): {last.says}
    </Typography>
  );
}

const said = (at: string) =>
  new Date(at).toLocaleDateString("en-GB", { day: "numeric", month: "long" });
