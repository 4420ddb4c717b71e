import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";

export type Held = Schemas["EyeHeld"];
type Lab = Schemas["EyeStop"]["lab"];

/**
 * A colour that is held on the screen, and the ribbons that it is held in, round by round. `of` names
 * what is held, `rounds` say how far the ribbons run either way, CIEDE2000.
 */
export function useRibbons(
  of: string,
  rounds: readonly number[],
  ask: (off: number, lab: string | undefined) => Promise<Held>,
) {
  const [come, setCome] = useState<{ at?: Lab; round: number }>({ round: 0 });
  const { at, round } = come;
  const off = rounds[round]!;
  const query = useQuery({
    queryKey: ["ribbons", of, at, off],
    queryFn: () => ask(off, at?.join(",")),
    // Of something else nothing is shown meanwhile.
    placeholderData: (before, last) => (last?.queryKey[1] === of ? before : undefined),
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
