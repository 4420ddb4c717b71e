import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import { aboveRail, grey, phoneRail, screens } from "../drawing/style";

/** How much of the height of an upright phone the card takes. */
const share = 0.4;

/** How far down a phone's screen is clear of the card, px. */
export const clearOfCard = () =>
  window.matchMedia(screens.lying).matches
    ? window.innerHeight
    : (1 - share) * window.innerHeight - phoneRail.high;

/**
 * On a phone: a card that comes up from below, half the height, while the figure above it is still seen.
 * Steppers go to its neighbours, for what is small in a figure.
 */
export function CardFromBelow({
  label,
  before,
  after,
  tall = false,
  onClose,
  children,
}: {
  label: string;
  /** There is no figure to be seen above it. */
  tall?: boolean;
  before?: { name: string; go: () => void };
  after?: { name: string; go: () => void };
  onClose: () => void;
  children: ReactNode;
}) {
  const step = { flex: 1, minWidth: 0, fontSize: 14, px: 0.5 };
  return (
    <Box
      role="region"
      aria-label={label}
      sx={{
        position: "fixed",
        zIndex: 4,
        left: 0,
        right: 0,
        bottom: aboveRail,
        height: tall ? "70dvh" : `${100 * share}dvh`,
        bgcolor: grey.paper,
        borderTop: `2px solid ${grey.ink}`,
        display: "flex",
        flexDirection: "column",
        [`@media ${screens.lying}`]: {
          left: "50%",
          top: 52,
          bottom: 0,
          height: "auto",
          borderTop: 0,
          borderLeft: `2px solid ${grey.ink}`,
        },
      }}
    >
      <Box sx={{ display: "flex", flex: "none", borderBottom: `1px solid ${grey.hairline}` }}>
        {before && (
          <Button color="inherit" onClick={before.go} sx={step}>
            ‹ {before.name}
          </Button>
        )}
        <Button color="inherit" onClick={onClose} sx={{ ...step, flex: "none", px: 2, mx: "auto" }}>
          put down
        </Button>
        {after && (
          <Button color="inherit" onClick={after.go} sx={step}>
            {after.name} ›
          </Button>
        )}
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", p: "12px 16px" }}>{children}</Box>
    </Box>
  );
}
