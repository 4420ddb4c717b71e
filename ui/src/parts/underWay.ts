import type { Schemas } from "../api/client";

const day = 86_400_000;

/** How long ago something was, in days of the calendar. */
function since(ms: number): string {
  const midnight = new Date().setHours(0, 0, 0, 0);
  if (ms >= midnight) {
    return `since ${new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}`;
  }
  if (ms >= midnight - day) return "since yesterday";
  return `since ${new Date(ms).toLocaleDateString("en-GB", { day: "numeric", month: "long" })}`;
}

/** How far a sitting that is under way has come: "5 of 12, since yesterday". */
export const howFar = (s: Schemas["SittingUnderWay"]) =>
  `${s.painted} of ${s.places}, ${since(Date.parse(s.began))}`;
