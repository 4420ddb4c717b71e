import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { BenchSheet, Selection, Settings } from "../api/client";
import { swatchesQuery } from "../api/queries";
import { figures, grey } from "../drawing/style";
import { percent } from "../parts/naming";

/** How far each swatch of the sheet brings the recipes of the wheel. */
export function SwatchCurve({
  wheel,
  system,
  settings,
  sheet,
}: {
  wheel: number;
  system: Selection;
  settings: Settings;
  sheet: Pick<BenchSheet, "readBy" | "ofBox">;
}) {
  const { data, error } = useQuery(swatchesQuery(wheel, system, settings, sheet));
  if (error) return <Typography role="alert">{error.message}</Typography>;
  if (!data) return null;
  const rows = [
    { says: "as they are known now", knownTo: data.knownTo },
    ...data.swatches.map((s) => ({ says: s.says, knownTo: s.knownTo })),
  ];
  return (
    <Box component="section" aria-label="what they bring">
      <Typography variant="body2" sx={{ mb: 1 }}>
        How far the parts of{" "}
        {sheet.ofBox ? "half-way mixtures of every two paints of the box" : "this wheel’s mixtures"}{" "}
        are known, once each of these and those before it were painted and read. {data.says}
      </Typography>
      {rows.map((row) => (
        <Box
          key={row.says}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(0, 1fr) 52px 140px",
            gap: 1.5,
            alignItems: "center",
            minHeight: { xs: 48, md: 34 },
            borderBottom: `1px solid ${grey.hairline}`,
          }}
        >
          <Typography
            variant="body2"
            title={row.says}
            sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
          >
            {row.says}
          </Typography>
          <Box sx={{ fontFamily: figures, textAlign: "right" }}>{percent(row.knownTo)}</Box>
          <Box
            sx={{
              height: 8,
              width: `${Math.max(1, 100 * Math.min(1, row.knownTo / data.knownTo))}%`,
              bgcolor: grey.third,
            }}
          />
        </Box>
      ))}
    </Box>
  );
}
