import { createTheme } from "@mui/material/styles";

/** The greys of the chrome: only paint has colour. */
export const grey = {
  ink: "#161616",
  second: "#454545",
  third: "#5f5f5f",
  mark: "#8a8a8a",
  hairline: "#cfcfcf",
  track: "#e9e9e9",
  paper: "#f7f7f7",
  white: "#ffffff",
};

export const text = '"Proza Libre", sans-serif';
export const figures = '"B612", sans-serif';

export const theme = createTheme({
  cssVariables: false,
  palette: {
    mode: "light",
    primary: { main: grey.ink, contrastText: grey.paper },
    secondary: { main: grey.second },
    error: { main: grey.ink },
    background: { default: grey.paper, paper: grey.paper },
    text: { primary: grey.ink, secondary: grey.third },
    divider: grey.hairline,
    action: { hover: "rgba(0,0,0,0.05)", selected: "rgba(0,0,0,0.08)", focus: "rgba(0,0,0,0.1)" },
  },
  shape: { borderRadius: 0 },
  shadows: Array(25).fill("none") as ReturnType<typeof createTheme>["shadows"],
  transitions: { duration: { enteringScreen: 120, leavingScreen: 90, shortest: 90, shorter: 120, short: 140, standard: 160, complex: 180 } },
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
        body: { overflowX: "hidden" },
        "*:focus-visible": { outline: `2px solid ${grey.ink}`, outlineOffset: 2 },
        "@media (prefers-reduced-motion: reduce)": { "*": { transition: "none !important", animation: "none !important" } },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true }, styleOverrides: { root: { fontFamily: text } } },
    MuiButton: {
      styleOverrides: {
        root: { "&.Mui-disabled": { color: grey.third } },
        contained: { "&.Mui-disabled": { backgroundColor: grey.track, color: grey.third } },
      },
    },
    MuiMenuItem: { styleOverrides: { root: { fontSize: 15, minHeight: 40 } } },
    MuiMenu: { styleOverrides: { paper: { border: `1px solid ${grey.ink}` } } },
  },
});
