import Box from "@mui/material/Box";
import { grey } from "../drawing/style";

/** What every page of paints ends with. */
export function Foot({ padding }: { padding: string }) {
  return (
    <Box
      component="footer"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        columnGap: 3,
        p: padding,
        color: grey.third,
        fontSize: 12,
        lineHeight: "16px",
      }}
    >
      <span>
        A screen is not paint: test on paper. Paints are modelled from their pigment class, not from
        your tube.
      </span>
      <Box sx={{ flex: 1 }} />
      <span>
        <svg width={8} height={8} aria-hidden>
          <path d="M0 0 H8 V8 Z" fill={grey.third} />
        </svg>{" "}
        brighter in paint than this screen can show
      </span>
    </Box>
  );
}
