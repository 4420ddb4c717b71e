import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { grey } from "../drawing/style";

/** A sentence across the page, above the place. */
export function Notice({ children }: { children: ReactNode }) {
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        gap: 2,
        p: { xs: "10px 16px", sm: "10px 24px 10px 116px" },
        bgcolor: grey.ink,
        color: grey.paper,
        fontSize: 15,
        lineHeight: "20px",
      }}
    >
      {children}
    </Box>
  );
}
