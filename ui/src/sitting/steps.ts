import type { Schemas, Sitting } from "../api/client";
import type { Done } from "./useSitting";

/** What leads to the painting of one region: what is done before it, and that. */
export type Step = Sitting["steps"][number];

/** What is told of something by one tap, as the server has said it. */
export const toldOf = (tells: Schemas["SittingTell"][]): Done[] => tells.map((t) => ({ ...t }));

/** The time of day. */
export const timeOf = (ms: number) =>
  new Date(ms).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** How long it still takes, in whole minutes or, at the end, seconds. */
export function leftOf(ms: number) {
  const seconds = Math.ceil(ms / 1000);
  return seconds > 90 ? `${Math.ceil(seconds / 60)} min` : `${Math.max(0, seconds)} s`;
}
