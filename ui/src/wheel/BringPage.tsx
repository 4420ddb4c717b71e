import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Profile, Schemas } from "../api/client";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { kindWords, mediumWords } from "../parts/choices";
import { FileButton } from "../parts/FileButton";
import { useFileRows } from "../parts/useFileRows";

type Carried = Schemas["Carried"];

const happens = {
  added: "goes into your box",
  yours: "you have the same",
  library: "of the library",
} as const satisfies Record<Carried["paints"][number]["happens"], string>;

/** A wheel out of a file that somebody took along: looked at, then kept with the paints that it needs. */
export function BringPage({ painter }: { painter: Profile }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const file = useFileRows<Carried>("wheel", (kept) => {
    void queries.invalidateQueries(); // the box, the list of wheels
    void navigate(`/wheel/${kept.wheel}`);
  });
  const got = file.got;
  const tubes = got?.paints.filter((p) => p.happens !== "library") ?? [];
  const more = (got?.paints.length ?? 0) - tubes.length;
  return (
    <Shell painter={painter} title="A wheel out of a file">
      <Box sx={{ maxWidth: 720 }}>
        <Typography sx={{ mb: 2 }}>
          A wheel that somebody took along, with the paints that it needs: it is looked at before
          anything is kept.
        </Typography>
        <FileButton
          label="choose a wheel's file"
          accept=".json,application/json"
          onFile={file.choose}
        />
        {file.problem && (
          <Typography role="alert" sx={{ mt: 2 }}>
            {file.problem}
          </Typography>
        )}
        {got && !file.problem && (
          <Box component="section" aria-label="what the file holds" sx={{ mt: 3 }}>
            <Typography variant="h2" sx={{ overflowWrap: "anywhere" }}>
              {got.name}
            </Typography>
            <Typography>
              {kindWords[got.kind].name}, in{" "}
              {mediumWords[got.medium as keyof typeof mediumWords] ?? got.medium}
            </Typography>
            <Box
              component="ul"
              aria-label="its tubes"
              sx={{ m: 0, mt: 1, p: 0, listStyle: "none" }}
            >
              {tubes.map((p) => (
                <Box
                  component="li"
                  key={p.name}
                  sx={{
                    display: "flex",
                    flexWrap: "wrap",
                    columnGap: 2,
                    borderTop: `1px solid ${grey.hairline}`,
                    py: 1,
                  }}
                >
                  <Typography sx={{ flex: "1 1 220px" }}>
                    {p.name}
                    {!!p.strength &&
                      `, ${p.strength.toFixed(2)} times as strong as an ordinary tube (${p.low!.toFixed(2)} to ${p.high!.toFixed(2)})`}
                  </Typography>
                  <Typography sx={{ color: grey.second }}>{happens[p.happens]}</Typography>
                </Box>
              ))}
            </Box>
            <Typography variant="body2" sx={{ mt: 1 }}>
              {more > 0 && `${more} paints are of the library, which everybody has. `}
              Learned strengths come with their tubes; the log lists them, and takes them back.
            </Typography>
            <Button variant="contained" disabled={file.busy} onClick={file.keep} sx={{ mt: 2 }}>
              keep it
            </Button>
          </Box>
        )}
      </Box>
    </Shell>
  );
}
