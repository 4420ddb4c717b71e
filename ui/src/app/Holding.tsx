import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useLayoutEffect } from "react";
import { grey } from "../drawing/style";
import { Choice } from "../parts/Choice";
import { EdgeToEdge } from "../parts/EdgeToEdge";
import { hold, lay, reach, useHolding } from "../parts/holding";
import { typing } from "../parts/keys";

/** The key that takes up what is at hand, and lays the next thing beside it. */
const key = "h";

/** What can be held here, in the bar. */
export function HoldChoice() {
  const { held, atHand } = useHolding();
  if (held || atHand.length === 0) return null;
  return (
    <Choice label="hold, to lay something beside it" bold={false} shown="hold">
      {(close) =>
        atHand.map((t, i) => (
          <MenuItem
            key={i}
            onClick={() => {
              close();
              hold(t);
            }}
          >
            {t.name}
            {i === 0 && (
              <Typography component="span" variant="caption" sx={{ ml: 2 }}>
                key {key}
              </Typography>
            )}
          </MenuItem>
        ))
      }
    </Choice>
  );
}

/** What is held, across every page: what lies here is laid beside it. */
export function Holding() {
  const { held, atHand, laid } = useHolding();
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.key === key && !typing(e) && !document.querySelector("[role=dialog]")) reach();
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, []);
  if (!held) return null;
  return (
    <Box
      role="region"
      aria-label="held"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 2,
        minHeight: 41,
        p: { xs: "0 16px", sm: "0 24px 0 116px" },
        borderBottom: `1px solid ${grey.hairline}`,
      }}
    >
      <Typography sx={{ overflowWrap: "anywhere" }}>
        <Typography component="span" variant="caption">
          held
        </Typography>{" "}
        {held.name}
      </Typography>
      {atHand.map((t, i) => (
        <Button key={i} color="inherit" size="small" onClick={() => reach(t)}>
          lay {t.name} beside it
        </Button>
      ))}
      <Button color="inherit" size="small" sx={{ fontWeight: 400 }} onClick={() => hold(null)}>
        put it back
      </Button>
      {laid && <EdgeToEdge here={laid} held={held} onClose={() => lay(null)} />}
    </Box>
  );
}
