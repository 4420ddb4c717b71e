import ButtonBase from "@mui/material/ButtonBase";
import Box from "@mui/material/Box";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { grey, surrounds, type SurroundName } from "../drawing/style";
import { DarkRoom } from "../parts/darkRoom";
import { themeOf } from "./theme";

const place = "gyrophane.surround";

const Surrounding = createContext<{ surround: SurroundName; choose: (s: SurroundName) => void }>({
  surround: "paper",
  choose: () => undefined,
});

/** What surrounds the paint on this screen: kept in this browser, for it belongs to the room. */
export function Surround({ children }: { children: ReactNode }) {
  const [surround, setSurround] = useState<SurroundName>(() => {
    const kept = localStorage.getItem(place);
    return kept && kept in surrounds ? (kept as SurroundName) : "paper";
  });
  const [dark, setDark] = useState(false);
  const theme = useMemo(() => themeOf(dark ? "dark" : surround), [dark, surround]);
  const value = useMemo(
    () => ({
      surround,
      choose: (s: SurroundName) => {
        localStorage.setItem(place, s);
        setSurround(s);
      },
    }),
    [surround],
  );
  return (
    <Surrounding value={value}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <DarkRoom value={setDark}>{children}</DarkRoom>
      </ThemeProvider>
    </Surrounding>
  );
}

/** Three little cards: paper, mid grey, dark. */
export function SurroundChoice() {
  const { surround, choose } = useContext(Surrounding);
  const names = Object.keys(surrounds) as SurroundName[];
  return (
    <Box
      role="radiogroup"
      aria-label="surround"
      sx={{ display: "flex", alignItems: "center", gap: 0.5 }}
    >
      {names.map((name) => (
        <ButtonBase
          key={name}
          role="radio"
          aria-checked={name === surround}
          aria-label={name}
          title={`surround: ${name}`}
          onClick={() => choose(name)}
          sx={{
            width: 24,
            height: 24,
            border: `2px solid ${name === surround ? grey.ink : "transparent"}`,
            p: "2px",
          }}
        >
          <Box
            component="span"
            sx={{
              width: 1,
              height: 1,
              bgcolor: surrounds[name].paper,
              border: `1px solid ${grey.mark}`,
            }}
          />
        </ButtonBase>
      ))}
    </Box>
  );
}
