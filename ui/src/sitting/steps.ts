import type { Schemas, Sitting } from "../api/client";
import type { Done } from "./useSitting";

/** What leads to the painting of one region: what is done before it, and that. */
export type Step = Sitting["steps"][number];

/** What is told of something by one tap, as the server has said it. */
export const toldOf = (tells: Schemas["SittingTell"][]): Done[] => tells.map((t) => ({ ...t }));

// Made once: a picture of a sitting says forty times.
const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
const weekday = new Intl.DateTimeFormat("en-GB", { weekday: "long" });

/** The time of day, and which day it is where that is not near. */
export const timeOf = (ms: number) => {
  const time = clock.format(ms);
  const soon = Math.abs(ms - Date.now()) < 20 * 3600_000; // a layer of oil dries for days
  return soon ? time : `${weekday.format(ms)} ${time}`;
};

/** How long it still takes, in whole minutes or, at the end, seconds. */
export function leftOf(ms: number) {
  const seconds = Math.ceil(ms / 1000);
  if (seconds > 48 * 3600) return `${Math.round(seconds / 86400)} days`;
  return seconds > 90 ? `${Math.ceil(seconds / 60)} min` : `${Math.max(0, seconds)} s`;
}
