import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, client, type Selection } from "../api/client";
import { keptQuery, wheelsQuery } from "../api/queries";
import { plainSettings } from "./choices";

/** Keeps a new system and goes to it; one that is there already is gone to, and not kept twice. */
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
      const wheels = await queries.fetchQuery(wheelsQuery);
      const present = wheels.filter((w) => !w.archived);
      const same = present.find(
        (w) =>
          w.system.kind === system.kind &&
          JSON.stringify(w.system.roles) === JSON.stringify(system.roles),
      );
      if (same) return { place, id: same.id };
      // In the medium that was painted in last: who has pans has pans.
      const last = present[0];
      const medium = last && (await queries.fetchQuery(keptQuery(last.id))).settings.medium;
      const settings = { ...plainSettings, ...(medium && { medium }) };
      const w = await answer(
        client.POST("/api/wheels", { body: { name: numbered(name, wheels), system, settings } }),
      );
      queries.setQueryData(keptQuery(w.id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
      return { place, id: w.id };
    },
    onSuccess: ({ place, id }) => void navigate(`/${place}/${id}`),
  });
}

/** A name that no wheel has yet: "split primaries", "split primaries 2". */
function numbered(name: string, wheels: { name: string }[]): string {
  const has = (n: string) => wheels.some((w) => w.name === n);
  let n = 1;
  while (has(n === 1 ? name : `${name} ${n}`)) n++;
  return n === 1 ? name : `${name} ${n}`;
}
