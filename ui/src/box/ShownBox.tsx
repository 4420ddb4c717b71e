import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { DrawDown } from "../drawing/DrawDown";
import { HidingMark, StrengthMark } from "../drawing/Marks";
import { figures, grey } from "../drawing/style";
import { leanWords } from "../parts/naming";

/** A box of paints as others see it. */
export function ShownBox({
  tubes,
  notice,
}: {
  tubes: Schemas["ExhibitedTube"][];
  notice: string | undefined;
}) {
  if (tubes.length === 0) return <Typography>There is no paint in it.</Typography>;
  return (
    <>
      <Box
        component="ul"
        aria-label="paints of the box"
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(auto-fill, minmax(150px, 1fr))",
          gap: 3,
          listStyle: "none",
          p: 0,
          m: 0,
        }}
      >
        {tubes.map(({ called, paint, note, price, tubeMl }) => (
          <Box component="li" key={paint.id} sx={{ minWidth: 0 }}>
            <DrawDown paint={paint} width={150} height={130} />
            <Typography sx={{ fontWeight: 500, mt: 1, overflowWrap: "anywhere" }}>
              {called}
            </Typography>
            <Typography variant="body2">
              {called !== paint.name && `${paint.name}, `}
              {paint.ci}
            </Typography>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1, my: 0.5 }}>
              <HidingMark hiding={paint.hiding} />
              <StrengthMark strength={paint.strength} />
              <Typography variant="body2">{paint.lean && leanWords(paint.lean)}</Typography>
            </Box>
            {(price !== undefined || tubeMl !== undefined) && (
              <Typography variant="body2" sx={{ fontFamily: figures }}>
                {[tubeMl !== undefined && `${tubeMl} ml`, price !== undefined && `costs ${price}`]
                  .filter(Boolean)
                  .join(", ")}
              </Typography>
            )}
            {note && (
              <Typography variant="body2" sx={{ whiteSpace: "pre-wrap" }}>
                {note}
              </Typography>
            )}
            {paint.cautious && (
              <Typography variant="body2" sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}>
                {paint.caution}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 3, color: grey.second }}>
        {notice}
      </Typography>
    </>
  );
}
