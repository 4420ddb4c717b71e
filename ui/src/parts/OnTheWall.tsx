import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import visuallyHidden from "@mui/utils/visuallyHidden";
import type { ReactNode } from "react";
import { grey } from "../drawing/style";

/** Something on the wall above what is done with it. */
export function OnTheWall({
  title,
  children,
  deeds,
  keys,
}: {
  /** What it is, for those who do not see it. */
  title: string;
  children: ReactNode;
  deeds: ReactNode;
  /** What the keys do, in words. */
  keys: string;
}) {
  return (
    <Box
      component="main"
      sx={{
        minHeight: "100dvh",
        display: "grid",
        gridTemplateRows: "minmax(0, 1fr) auto",
        p: { xs: 2, md: "24px 36px 12px" },
        gap: 2,
      }}
    >
      <h1 style={visuallyHidden}>{title}</h1>
      {children}
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          alignItems: "center",
          gap: 2,
          borderTop: `1px solid ${grey.hairline}`,
          pt: 1,
          "& button, & a": { minHeight: 48 },
        }}
      >
        {deeds}
        <Typography variant="caption" sx={{ ml: "auto" }}>
          {keys}
        </Typography>
      </Box>
    </Box>
  );
}
