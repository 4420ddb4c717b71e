import type { Settings } from "../api/client";

/** Plain words for what the API names by code. */
export const mediumWords = { watercolour: "watercolour", gouache: "gouache", tempera: "tempera", acrylic: "acrylic", oil: "oil" } as const;
export const lightWords = { D65: "daylight", A: "warm lamp", D50: "gallery" } as const;
export const judgedWords = { wet: "wet", dry: "dry" } as const;
export const spacingWords = { hue: "half way in hue", contrast: "even contrast", parts: "equal parts" } as const;
export const roles = ["yellow", "red", "blue"] as const;

/** How a new wheel is looked at. */
export const plainSettings: Settings = { spacing: "hue", medium: "acrylic", light: "D65", judged: "dry" };
