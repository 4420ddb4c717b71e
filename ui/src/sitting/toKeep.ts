import type { Schemas } from "../api/client";

/** A reading as it is sent to be kept. */
export type ToKeep = Schemas["ReadToKeep"];
