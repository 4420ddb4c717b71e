import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { grey } from "../drawing/style";

/** One of a list of things, what is known of it, and what can be done with it. */
export function Entry({
  name,
  says,
  heavy = false,
  children,
}: {
  name: string;
  says: ReactNode;
  /** It is the one that is meant just now. */
  heavy?: boolean;
  children: ReactNode;
}) {
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 2,
        borderTop: heavy ? `2px solid ${grey.ink}` : `1px solid ${grey.hairline}`,
        py: 1.25,
        minHeight: 60,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography sx={{ fontWeight: 500, overflowWrap: "anywhere" }}>{name}</Typography>
        <Typography variant="caption" component="p">
          {says}
        </Typography>
      </Box>
      {children}
    </Box>
  );
}
