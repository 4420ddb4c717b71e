import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Box as PaintBox } from "../api/client";
import { figures, grey } from "../drawing/style";
import { useColours } from "../drawing/screen";

/** An empty box: three good ones to begin with. */
export function EmptyBox({
  sets,
  onAdd,
  onPick,
}: {
  sets: PaintBox["sets"];
  onAdd: (paints: string[]) => void;
  onPick: () => void;
}) {
  const { fill } = useColours();
  return (
    <Box>
      <Typography variant="subtitle1" sx={{ maxWidth: 640, color: grey.second, mb: 2 }}>
        Nothing in it yet. Begin with one of these and change it to what you own, or put your tubes
        in one by one.
      </Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", md: "repeat(3, minmax(0, 1fr))" },
          gap: 3,
        }}
      >
        {sets.map((s) => (
          <Box
            key={s.name}
            component="section"
            aria-label={s.name}
            sx={{
              borderTop: `2px solid ${grey.ink}`,
              pt: 1,
              display: "flex",
              flexDirection: "column",
              gap: 1,
            }}
          >
            <Typography variant="h3" sx={{ "&::first-letter": { textTransform: "uppercase" } }}>
              {s.name}
            </Typography>
            <svg width="100%" height={64} aria-hidden>
              {s.shown?.map((c, i) => (
                <rect
                  key={i}
                  x={`${(100 * i) / s.shown.length}%`}
                  width={`${100 / s.shown.length}%`}
                  height={64}
                  fill={fill(c)}
                />
              ))}
            </svg>
            <Typography variant="caption" sx={{ fontFamily: figures }}>
              {s.paints?.join("  ")}
            </Typography>
            <Typography sx={{ flex: 1 }}>{s.why}</Typography>
            <Button variant="outlined" size="large" onClick={() => onAdd(s.paints ?? [])}>
              begin with these {s.paints?.length}
            </Button>
          </Box>
        ))}
      </Box>
      <Button color="inherit" sx={{ mt: 2 }} onClick={onPick}>
        put my tubes in one by one
      </Button>
    </Box>
  );
}
