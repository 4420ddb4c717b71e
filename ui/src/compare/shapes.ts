import { line } from "d3-shape";
import { constants, type Schemas } from "../api/client";
import { point } from "../drawing/polar";

export type Comparison = Schemas["Comparison"];
export type Compared = Schemas["Compared"];

/** How the outline of each system is drawn, whatever its colour. */
export const outlines = [
  { dash: undefined, cap: "butt" },
  { dash: "9 5", cap: "butt" },
  { dash: "0.1 6", cap: "round" },
  { dash: "15 4 2 4", cap: "butt" },
] as const;

/** The columns of a table with a column for each system, the names of its rows before them. */
export const columnsOf = (systems: number) => ({
  xs: `92px repeat(${systems}, minmax(0, 1fr))`,
  sm: `148px repeat(${systems}, minmax(0, 1fr))`,
});

export const bins = constants.bins;

/** The angle of a bin's middle, clockwise with yellow (120 degrees) on top. */
export const angleOf = (bin: number) => 120 - (360 / bins) * (bin + 0.5);

/** A reach as a closed outline. */
export function outline(reach: number[], c: number, inner: number, outer: number): string {
  return `${line().digits(1)(reach.map((r, bin) => point(c, c, inner + r * (outer - inner), angleOf(bin))))} Z`;
}
