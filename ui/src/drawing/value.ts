import type { Shown } from "./shapes";

/** How light a colour is, as painters count: 0 black to 10 white, a tenth of L*. */
export const value = (c: Shown) => (c.l / 10).toFixed(1);

/** Ink or paper: what stands out on a colour. */
export const upon = (c: Shown) => (c.l > 52 ? "#161616" : "#f7f7f7");
