/** Carries a paint's reference while it is dragged. */
export const dragged = "application/x-paint";

/** A place of a role. */
export type At = { role: number; place: number };
