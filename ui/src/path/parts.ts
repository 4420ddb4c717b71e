import type { Schemas } from "../api/client";
import type { InPile } from "./usePiles";

export const total = (parts: InPile[]) => parts.reduce((sum, p) => sum + p.parts, 0);

/** A mixture as parts of paints alone, as they are laid on a palette. */
export const plainParts = (m: Pick<Schemas["Mixture"], "parts" | "plain">): InPile[] =>
  (m.plain ?? m.parts).map((p) => ({ ref: p.paint, parts: p.parts }));
