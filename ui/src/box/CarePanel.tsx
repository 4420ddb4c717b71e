import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Box as PaintBox } from "../api/client";
import { nameOf } from "../parts/naming";
import { grey } from "../drawing/style";
import { PanelHead } from "./Pieces";

/** What the box must be handled with care for, the gravest first. */
export function CarePanel({ box, onClose }: { box: PaintBox; onClose: () => void }) {
  const names = new Map(box.tubes.map((t) => [t.paint.id, nameOf(t)]));
  return (
    <Box
      component="section"
      aria-label="cautions"
      sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}
    >
      <PanelHead title="Take care" onClose={onClose} />
      <Typography sx={{ fontWeight: 500 }}>{box.cautionNotice}</Typography>
      {box.cautions.length === 0 && (
        <Typography>None of these paints is of a class with a special hazard.</Typography>
      )}
      {box.cautions.map((g) => (
        <Box key={g.name} sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}>
          <Typography
            variant="subtitle2"
            sx={{ "&::first-letter": { textTransform: "uppercase" } }}
          >
            {g.name}
          </Typography>
          <Typography sx={{ color: grey.second }}>
            {g.paints?.map((id) => names.get(id) ?? id).join(", ")}
          </Typography>
          <Typography sx={{ mt: 0.5 }}>{g.caution}</Typography>
        </Box>
      ))}
      <Typography
        variant="caption"
        component="p"
        sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}
      >
        By pigment class, from the codes of the library and of your labels: what is in your own tube
        only its maker can say.
      </Typography>
    </Box>
  );
}
