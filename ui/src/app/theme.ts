import { createTheme } from "@mui/material/styles";
import { grey, screens, surrounds, text, type SurroundName } from "../drawing/style";

const phone = `@media ${screens.phone}`;

/** The theme of a surround. */
export const themeOf = (surround: SurroundName) =>
  createTheme({
    cssVariables: false,
    palette: {
      mode: surround === "dark" ? "dark" : "light",
      primary: { main: surrounds[surround].ink, contrastText: surrounds[surround].paper },
      secondary: { main: surrounds[surround].second },
      error: { main: surrounds[surround].ink },
      background: { default: surrounds[surround].paper, paper: surrounds[surround].paper },
      text: { primary: surrounds[surround].ink, secondary: surrounds[surround].third },
      divider: surrounds[surround].hairline,
      action:
        surround === "dark"
          ? {
              hover: "rgba(255,255,255,0.07)",
              selected: "rgba(255,255,255,0.12)",
              focus: "rgba(255,255,255,0.14)",
            }
          : { hover: "rgba(0,0,0,0.05)", selected: "rgba(0,0,0,0.08)", focus: "rgba(0,0,0,0.1)" },
    },
    shape: { borderRadius: 0 },
    shadows: Array(25).fill("none") as ReturnType<typeof createTheme>["shadows"],
    transitions: {
      duration: {
        enteringScreen: 120,
        leavingScreen: 90,
        shortest: 90,
        shorter: 120,
        short: 140,
        standard: 160,
        complex: 180,
      },
    },
    typography: {
      fontFamily: text,
      htmlFontSize: 16,
      h1: { fontSize: 46, lineHeight: "50px", fontWeight: 500 },
      h2: { fontSize: 28, lineHeight: "34px", fontWeight: 500 },
      h3: { fontSize: 20, lineHeight: "26px", fontWeight: 600 },
      subtitle1: { fontSize: 22, lineHeight: "29px" },
      subtitle2: { fontSize: 15, lineHeight: "20px", fontWeight: 500 },
      body1: { fontSize: 14, lineHeight: "20px" },
      body2: { fontSize: 13, lineHeight: "18px" },
      caption: { fontSize: 12, lineHeight: "16px", color: grey.third },
      button: { textTransform: "none", fontSize: 15, fontWeight: 500 },
    },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          ":root": Object.fromEntries(
            Object.entries(surrounds[surround]).map(([g, hex]) => [`--${g}`, hex]),
          ),
          body: { overflowX: "hidden" },
          ":root[data-squint] img": { filter: "url(#luminance)" },
          a: { color: "inherit" },
          "*:focus-visible": { outline: `2px solid ${grey.ink}`, outlineOffset: 2 },
          "@media (prefers-reduced-motion: reduce)": {
            "*": { transition: "none !important", animation: "none !important" },
          },
        },
      },
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        styleOverrides: { root: { fontFamily: text } },
      },
      MuiButton: {
        styleOverrides: {
          root: { "&.Mui-disabled": { color: grey.third } },
          contained: { "&.Mui-disabled": { backgroundColor: grey.track, color: grey.third } },
        },
      },
      // The heading of the first level is the frame's; what looks like one below it
      // is a section of the place.
      MuiTypography: {
        defaultProps: {
          variantMapping: { h1: "h2", h2: "h2", h3: "h2", subtitle1: "p", subtitle2: "p" },
        },
      },
      // On a phone a field's label stays readable when it has moved up, and no browser zooms into the field.
      MuiInputLabel: { styleOverrides: { root: { [phone]: { fontSize: 16 } } } },
      MuiInputBase: { styleOverrides: { root: { [phone]: { fontSize: 16 } } } },
      MuiPaper: { styleOverrides: { root: { backgroundImage: "none" } } },
      MuiMenuItem: {
        styleOverrides: {
          root: {
            fontSize: 15,
            minHeight: 40,
            [phone]: { minHeight: 48 },
          },
        },
      },
      MuiMenu: { styleOverrides: { paper: { border: `1px solid ${grey.ink}` } } },
    },
  });
