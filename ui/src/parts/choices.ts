import { constants, type Schemas, type Settings } from "../api/client";

/** Plain words for what the API names by code. */
export const mediumWords = {
  watercolour: "watercolour",
  gouache: "gouache",
  tempera: "tempera",
  acrylic: "acrylic",
  oil: "oil",
} as const satisfies Record<Schemas["Medium"], string>;
export const lightWords = {
  D65: "daylight",
  A: "warm lamp",
  D50: "gallery",
} as const satisfies Record<Schemas["Light"], string>;
export const judgedWords = { wet: "wet", dry: "dry" } as const satisfies Record<
  Schemas["Judged"],
  string
>;
export const spacingWords = {
  hue: "half way in hue",
  contrast: "even contrast",
  parts: "equal parts",
} as const satisfies Record<Schemas["Spacing"], string>;
export const orderWords = {
  run: "run from the weaker paint",
  secondary: "the secondary first, then parted",
} as const satisfies Record<Schemas["MixingOrder"], string>;
export const nameWords = {
  painters: "painters’ names",
  printers: "printers’ names",
} as const satisfies Record<Schemas["NameSet"], string>;
export const tintWords = {
  white: "white",
  water: "water",
  neighbour: "a lighter neighbour",
} as const satisfies Record<Schemas["TintWay"], string>;
export const shadeWords = {
  complement: "the complement",
  black: "black",
  "blue-grey": "dark blue-grey",
  "mixed-black": "mixed black",
} as const satisfies Record<Schemas["ShadeWay"], string>;

/** Whose mixtures swatches make surer. */
export const surerWords = {
  wheel: "this wheel’s mixtures",
  box: "every two of the box",
} as const;

export const measureWords = {
  dabs: "dabs",
  drops: "drops",
  loads: "brush loads",
  tips: "knife tips",
  grams: "grams",
  looks: "looks, from pans",
} as const satisfies Record<Schemas["Measure"], string>;
export const sheetWords = {
  wheel: "the wheel",
  grid: "pairings to paint",
  ladder: "a ladder",
  values: "a value scale",
  intensity: "an intensity scale",
  run: "a run of neighbours",
  guide: "a palette guide",
  wanted: "wanted colours",
  warmcool: "warm and cool",
  worksheet: "a worksheet",
  glazes: "glazes",
  swatches: "swatches to be surer",
} as const satisfies Record<Schemas["SheetKind"], string>;
/** What swatches are read by. */
export const readingWords = {
  photo: "read by a photo",
  eye: "read by eye",
  instrument: "read by a meter",
} as const satisfies Record<Schemas["ReadingSource"], string>;
/** The parts of the sheets that have some, in the order in which they lie on them. */
export const partWords: Partial<Record<Schemas["SheetKind"], Record<string, string>>> = {
  worksheet: {
    wheel: "the wheel",
    greys: "greys of complements",
    runs: "runs of neighbours",
    values: "tints and shades",
    intensity: "toward the complement",
  },
  glazes: {
    wheel: "the wheel in two layers",
    order: "over each other, both ways",
    ramp: "one paint over others",
  },
};
/** What can be added to a wheel and to a worksheet. */
export const extraWords = {
  dark: "the darkest dark, and its tint",
  earth: "its neighbours from an earth",
  tube: "a tube beside it",
  bit: "a bit of another in it",
} as const;
export type SheetExtra = keyof typeof extraWords;
/** How thick a glaze lies. */
export const filmWords = {
  "0.1": "thinnest",
  "0.2": "thin",
  "0.3": "as usual",
  "0.4": "rather thick",
  "0.5": "thickest",
} as const;
/** The sheets that are of one slot. */
export const ofOneSlot: readonly string[] = ["values", "intensity", "run", "worksheet"];
export const fillWords = {
  weaker: "run from the weaker",
  stronger: "run from the stronger",
  secondary: "secondary first",
  own: "a pile for each",
} as const satisfies Record<Schemas["Fill"], string>;

/** The kinds of system: what each is called, and what it is. */
export const kindWords = {
  triad: { name: "RYB triad", what: "one yellow, one red, one blue" },
  cmy: {
    name: "CMY triad",
    what: "a middle yellow, a magenta, a cyan-like blue; red and blue are mixed",
  },
  split: {
    name: "split primaries",
    what: "a pair of each, leaning to either side; the facing ones mix",
  },
  double: {
    name: "double primaries",
    what: "two or more of each, dull earths welcome; every pairing is tried",
  },
  "leaning-clockwise": {
    name: "leaning clockwise",
    what: "three paints that all lean to the next primary",
  },
  "leaning-counter-clockwise": {
    name: "leaning counter-clockwise",
    what: "three paints that all lean to the one before",
  },
  own: { name: "own system", what: "two to twelve paints in the roles you give them" },
} as const satisfies Record<Schemas["SystemKind"], { name: string; what: string }>;

/** How a new wheel is looked at. */
export const plainSettings: Settings = {
  medium: constants.medium,
  light: "D65",
  judged: "dry",
  choices: constants.choices,
};
