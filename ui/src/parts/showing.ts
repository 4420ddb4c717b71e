import type { Conditions, Schemas } from "../api/client";

/** The page on which something is shown to others, as it is looked at here; the box has no id. */
export const showItAt = (
  { medium, light, judged }: Conditions,
  kind: Schemas["ShowableKind"],
  thing?: number,
) =>
  `/show/${kind}${thing ? `/${thing}` : ""}?${new URLSearchParams({ medium, light, judged }).toString()}`;
