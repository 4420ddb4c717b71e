import type { Conditions } from "../api/client";
import { judgedWords, lightWords, mediumWords, plainSettings } from "./choices";
import { useAddress } from "./useAddress";

/** How a place is looked at that belongs to no kept system; it lives in the address. */
export function useView() {
  const { search, show, one } = useAddress();
  const view: Conditions = {
    medium: one("medium", mediumWords, plainSettings.medium),
    light: one("light", lightWords, plainSettings.light),
    judged: one("judged", judgedWords, plainSettings.judged),
  };
  return { view, search, show };
}
