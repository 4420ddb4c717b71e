import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, constants, type Schemas } from "../api/client";

export type Held = Schemas["EyeHeld"];
type Lab = Schemas["EyeStop"]["lab"];

/** A place of a sitting as it is read by eye: the ribbons that it is held in, round by round. */
export function useRibbons(sitting: number, place: string, wet: boolean) {
  const [come, setCome] = useState<{ at?: Lab; round: number }>({ round: 0 });
  const { at, round } = come;
  const rounds = constants.eyeRounds;
  const off = rounds[round]!;
  const query = useQuery({
    queryKey: ["ribbons", sitting, place, at, off, wet],
    queryFn: () =>
      answer(
        client.GET("/api/sittings/{id}/ribbons", {
          params: {
            path: { id: sitting },
            query: { slot: place, off, wet, ...(at && { lab: at.join(",") }) },
          },
        }),
      ),
    // Of another place nothing is shown meanwhile.
    placeholderData: (before, of) => (of?.queryKey[2] === place ? before : undefined),
    staleTime: Infinity,
  });
  return {
    held: query.data,
    error: query.error,
    /** How far they run either way, CIEDE2000. */
    off,
    round,
    rounds: rounds.length,
    last: round >= rounds.length - 1,
    moved: at !== undefined,
    /** The colour that was come to. */
    lab: at ?? query.data?.middle.lab,
    move: (to: Lab) => setCome({ at: to, round }),
    closer: () => setCome({ at, round: round + 1 }),
    again: () => setCome({ round: 0 }),
  };
}
