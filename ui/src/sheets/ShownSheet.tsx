import Box from "@mui/material/Box";
import { grey } from "../drawing/style";

/** A sheet as others see it, page by page, as it comes out of the printer. */
export function ShownSheet({ pages, name }: { pages: string[]; name: string }) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 3 }}>
      {pages.map((svg, n) => (
        <Box
          key={n}
          component="img"
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`}
          alt={`page ${n + 1} of ${pages.length} of a sheet of ${name}`}
          sx={{
            display: "block",
            maxWidth: "100%",
            maxHeight: { md: "calc(100vh - 120px)" },
            border: `1px solid ${grey.hairline}`,
          }}
        />
      ))}
    </Box>
  );
}
