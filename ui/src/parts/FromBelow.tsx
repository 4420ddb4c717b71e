import Drawer from "@mui/material/Drawer";
import type { ReactNode } from "react";
import { grey } from "../drawing/style";

/** What comes up from below, within the thumb's reach. */
export function FromBelow({
  label,
  open,
  onClose,
  children,
}: {
  label: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Drawer
      anchor="bottom"
      open={open}
      onClose={onClose}
      slotProps={{
        paper: {
          role: "dialog",
          "aria-label": label,
          sx: {
            borderTop: `2px solid ${grey.ink}`,
            p: "8px 16px 16px",
            maxHeight: "85dvh",
            "& button": { minHeight: 48 },
          },
        },
      }}
    >
      {children}
    </Drawer>
  );
}
