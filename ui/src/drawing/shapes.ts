/** A colour as a screen shows it. */
export type Shown = {
  srgb: string;
  clipped: boolean;
  p3?: string;
  clippedP3?: boolean;
  /** Lightness, CIE L*. */
  l: number;
};

/** How much of the possible brightness is kept, in a word. */
export type Verdict = "clean" | "quiet" | "softened" | "muddy" | "neutral";
export type Sureness = "sure" | "likely" | "either way";
