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

/** What somebody took along as a file: what it is called, and where it is kept. */
const things = {
  wheel: {
    title: "A wheel out of a file",
    says: "A wheel that somebody took along, with the paints that it needs.",
    choose: "choose a wheel's file",
    at: (id: number) => `/wheel/${id}`,
  },
  sitting: {
    title: "A sitting out of a file",
    says: "A sitting that somebody took along, with its paints, what was done and what was read of it. Photos stay where they are.",
    choose: "choose a sitting's file",
    at: (id: number) => `/log/${id}`,
  },
} as const;

export const BringWheelPage = ({ painter }: { painter: Profile }) => (
  <BringPage painter={painter} thing="wheel" />
);
export const BringSittingPage = ({ painter }: { painter: Profile }) => (
  <BringPage painter={painter} thing="sitting" />
);

/** A thing out of a file: looked at, then kept with the paints that it needs. */
function BringPage({ painter, thing }: { painter: Profile; thing: keyof typeof things }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const words = things[thing];
  const file = useFileRows<Carried>(thing, (now) => {
    void queries.invalidateQueries(); // the box, the lists
    void navigate(words.at(now.kept));
  });
  const got = file.got;
  const tubes = got?.paints.filter((p) => p.happens !== "library") ?? [];
  const more = (got?.paints.length ?? 0) - tubes.length;
  return (
    <Shell painter={painter} title={words.title}>
      <Box sx={{ maxWidth: 720 }}>
        <Typography sx={{ mb: 2 }}>
          {words.says} It is looked at before anything is kept.
        </Typography>
        <FileButton label={words.choose} accept=".json,application/json" onFile={file.choose} />
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
              {got.kind
                ? kindWords[got.kind].name
                : `${got.told} things told, ${got.readings} readings`}
              , in {mediumWords[got.medium as keyof typeof mediumWords] ?? got.medium}
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
              {tubes.length > 0 &&
                "Learned strengths come with their tubes; the log lists them, and takes them back."}
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
