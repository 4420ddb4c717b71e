import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Ingredient } from "../api/client";
import { figures, grey } from "../drawing/style";
import { Swatch } from "../drawing/Swatch";

/** Parts to scale, one cell a part where they can be counted. */
export function PartsBar({ parts }: { parts: Ingredient[] }) {
  const total = parts.reduce((sum, p) => sum + p.parts, 0);
  return (
    <Box aria-label="parts">
      <Box sx={{ display: "flex", height: 30, gap: "3px" }}>
        {parts.map((p) => (
          <Box
            key={p.paint}
            sx={{ flex: `${p.parts} 0 6px`, display: "flex", gap: total <= 14 ? "2px" : 0 }}
          >
            {Array.from({ length: total <= 14 ? p.parts : 1 }, (_, i) => (
              <Box key={i} sx={{ flex: 1 }}>
                <Swatch colour={p} plain height={30} />
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2, mt: 0.5 }}>
        {parts.map((p, i) => (
          <Typography key={p.paint} variant="body2" sx={{ textAlign: i === 0 ? "left" : "right" }}>
            <Box component="span" sx={{ fontFamily: figures, fontWeight: 700 }}>
              {p.parts}
            </Box>{" "}
            {p.letDown
              ? `of ${p.code} let down 1:${p.letDown.parts} in ${p.letDown.in}`
              : p.of
                ? `${p.name} (${p.of.map((o) => `${o.parts} ${o.code}`).join(" : ")})`
                : `${p.code} ${p.shortName}`}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

/** What to do, in order. */
export function HowToMix({ steps, label = "how to mix it" }: { steps: string[]; label?: string }) {
  return (
    <Box
      component="ol"
      aria-label={label}
      sx={{ m: 0, p: 0, listStyle: "none", fontSize: 13, lineHeight: "18px" }}
    >
      {steps.map((line, i) => (
        <Box component="li" key={line} sx={{ display: "flex", gap: 1.5 }}>
          <Box component="span" sx={{ fontFamily: figures, color: grey.third, flex: "none" }}>
            {i + 1}
          </Box>
          {line}
        </Box>
      ))}
    </Box>
  );
}
