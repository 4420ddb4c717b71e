import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Profile } from "../api/client";
import { grey } from "../drawing/style";
import { terms, type Term } from "../parts/terms";
import { Picture } from "../parts/Word";
import { Shell } from "./Shell";

/** Every word that is explained, on one page. */
export function WordsPage({ painter }: { painter: Profile }) {
  return (
    <Shell painter={painter} title="Words">
      <Typography variant="h2">Words</Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(auto-fill, minmax(min(300px, 100%), 1fr))",
          columnGap: 4,
          mt: 1,
        }}
      >
        {Object.values<Term>(terms).map((t) => (
          <Box
            key={t.word}
            component="section"
            aria-label={t.word}
            sx={{ borderTop: `1px solid ${grey.hairline}`, py: 1.5 }}
          >
            <Typography variant="h3">{t.word}</Typography>
            <Picture of={t.picture} />
            <Typography>{t.says}</Typography>
          </Box>
        ))}
      </Box>
    </Shell>
  );
}
