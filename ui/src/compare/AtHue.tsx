import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { Drop } from "../drawing/Marks";
import { figures, grey } from "../drawing/style";
import { LineMark } from "./Marks";
import type { Comparison } from "./shapes";

/** What each system reaches at the hue that is pointed at. */
export function AtHue({ got, bin, says }: { got: Comparison; bin: number; says: ReactNode }) {
  return (
    <Box aria-label="at this hue" sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 0.5 }}>
      <Typography variant="caption" component="p">
        {says}
      </Typography>
      {got.systems.map((s, i) => (
        <Box key={i} sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 24 }}>
          <LineMark index={i} />
          <Typography
            variant="body2"
            sx={{ flex: 1, overflowWrap: "anywhere", lineHeight: "16px" }}
          >
            {s.name}
          </Typography>
          <Drop verdict={s.verdicts[bin] as "clean"} height={14} />
          <Typography variant="body2" sx={{ width: 62 }}>
            {s.verdicts[bin]}
          </Typography>
          <Typography sx={{ fontFamily: figures, fontSize: 13 }}>
            {s.reach[bin]!.toFixed(2)}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
