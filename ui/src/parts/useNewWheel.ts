import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, client, type Selection } from "../api/client";
import { keptQuery, wheelsQuery } from "../api/queries";
import { plainSettings } from "./choices";

/** Keeps a new system and goes to it. */
export function useNewWheel() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: async ({
      system,
      name,
      place,
    }: {
      system: Selection;
      name: string;
      place: "wheel" | "system";
    }) => {
      // In the medium that was painted in last: who has pans has pans.
      const last = (await queries.fetchQuery(wheelsQuery)).find((w) => !w.archived);
      const medium = last && (await queries.fetchQuery(keptQuery(last.id))).settings.medium;
      const settings = { ...plainSettings, ...(medium && { medium }) };
      return {
        place,
        w: await answer(client.POST("/api/wheels", { body: { name, system, settings } })),
      };
    },
    onSuccess: ({ place, w }) => {
      queries.setQueryData(keptQuery(w.id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
      void navigate(`/${place}/${w.id}`);
    },
  });
}
