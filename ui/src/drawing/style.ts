/** The greys of the chrome in each surround: only paint has colour. */
export const surrounds = {
  paper: {
    ink: "#161616",
    second: "#454545",
    third: "#5f5f5f",
    mark: "#8a8a8a",
    hairline: "#cfcfcf",
    track: "#e9e9e9",
    paper: "#f7f7f7",
  },
  "mid grey": {
    ink: "#0a0a0a",
    second: "#1c1c1c",
    third: "#262626",
    mark: "#4a4a4a",
    hairline: "#757575",
    track: "#808080",
    paper: "#919191",
  },
  dark: {
    ink: "#f0f0f0",
    second: "#cccccc",
    third: "#adadad",
    mark: "#7d7d7d",
    hairline: "#474747",
    track: "#303030",
    paper: "#1a1a1a",
  },
} as const;

export type SurroundName = keyof typeof surrounds;
type Grey = keyof (typeof surrounds)["paper"];

/** The greys of the present surround, as CSS. */
export const grey = Object.fromEntries(
  Object.keys(surrounds.paper).map((g) => [g, `var(--${g})`]),
) as Record<Grey, string>;

export const text = '"Proza Libre", sans-serif';
export const figures = '"B612", sans-serif';

/** How high a place is that fills the screen, below the bar and what the frame lays across. */
export const placeHeight = "calc(100vh - 116px - var(--strip, 0px))";

/** What counts as a phone, as one held upright and as one that lies on its side: media queries. */
export const screens = {
  phone: "(max-width: 599.95px), (max-height: 499.95px)",
  upright: "(max-width: 599.95px)",
  lying: "(max-height: 499.95px) and (min-width: 500px)",
} as const;

/** How much of a phone its rail takes, px: upright at the foot, lying at the side. */
export const phoneRail = { high: 62, wide: 84 } as const;

/** Where what stands above the rail of an upright phone ends. */
export const aboveRail = `calc(${phoneRail.high}px + env(safe-area-inset-bottom))`;
