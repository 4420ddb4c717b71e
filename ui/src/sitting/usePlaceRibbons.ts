import { answer, client, constants } from "../api/client";
import { useRibbons } from "../parts/useRibbons";

/** A place of a sitting as it is read by eye: the ribbons that it is held in. */
export const usePlaceRibbons = (sitting: number, slot: string, wet: boolean) =>
  useRibbons(`${sitting} ${slot} ${wet}`, constants.eyeRounds, (off, lab) =>
    answer(
      client.GET("/api/sittings/{id}/ribbons", {
        params: { path: { id: sitting }, query: { slot, off, wet, lab } },
      }),
    ),
  );
