import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState, type ReactNode } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, sendFile, type Profile, type Schemas } from "../api/client";
import { classSheetQuery, classSheetsQuery } from "../api/together";
import { Missing } from "../app/Missing";
import { Shell } from "../app/Shell";
import { useColours } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import { AskFirst } from "../parts/AskFirst";
import { dayAndTime } from "../parts/dates";
import { PaintedSheet } from "../parts/PaintedSheet";
import { Waiting } from "../parts/Waiting";

type Sheet = Schemas["ClassSheet"];

/** What a class painted: its sheets read in one go, beside the computed one; where the class as a whole strayed. */
export function PaintedPage({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  const got = useQuery(classSheetQuery(id));
  if (got.error && !got.data)
    return (
      <Missing
        painter={painter}
        what="this sheet"
        sentence={got.error.message}
        to="/class"
        back="to the class"
      />
    );
  if (!got.data) return <Waiting failing={got.failureCount > 0} />;
  return (
    <Shell painter={painter} title={`${got.data.name}, painted by a class`}>
      <Painted sheet={got.data} />
    </Shell>
  );
}

/** A photo that could not be read, and why. */
type Refusal = { file: string; why: string };

function Painted({ sheet }: { sheet: Sheet }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { queryKey } = classSheetQuery(sheet.id);
  const [deleting, setDeleting] = useState(false);
  const [left, setLeft] = useState(0);
  const [refused, setRefused] = useState<Refusal[]>([]);
  const read = useMutation({
    mutationFn: async (photos: File[]) => {
      setRefused([]);
      for (const [n, photo] of photos.entries()) {
        setLeft(photos.length - n);
        try {
          await sendFile<Schemas["PupilRead"]>(`class/sheets/${sheet.id}/photo`, photo);
        } catch (why) {
          setRefused((all) => [...all, { file: photo.name, why: (why as Error).message }]);
        }
        await queries.invalidateQueries({ queryKey });
      }
    },
    onSettled: () => setLeft(0),
  });
  const drop = useMutation({
    mutationFn: (pupil: number) =>
      answer(
        client.DELETE("/api/class/sheets/{id}/reads/{read}", {
          params: { path: { id: sheet.id, read: pupil } },
        }),
      ),
    onSuccess: (now) => queries.setQueryData(queryKey, now),
  });
  const strayed = sheet.places.filter((p) => p.strayed);
  const drawn = { kind: sheet.kind, width: sheet.width, height: sheet.height };
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 400px" },
        gap: 4,
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
          <Typography variant="h2" sx={{ flex: "1 1 260px", overflowWrap: "anywhere" }}>
            {sheet.name}, painted by a class
          </Typography>
          <Photos busy={read.isPending} onFiles={(all) => read.mutate(all)} />
          <Button color="inherit" onClick={() => setDeleting(true)}>
            delete
          </Button>
          {deleting && (
            <AskFirst
              title="Delete what was read of this class?"
              yes="delete it"
              onNo={() => setDeleting(false)}
              onYes={async () => {
                await answer(
                  client.DELETE("/api/class/sheets/{id}", { params: { path: { id: sheet.id } } }),
                );
                await queries.invalidateQueries(classSheetsQuery);
                await navigate("/class");
              }}
            >
              <Typography>
                {sheet.sheets.length} sheets were read. It cannot be taken back.
              </Typography>
            </AskFirst>
          )}
          <Button component={To} to="/class" color="inherit">
            to the class
          </Button>
        </Box>
        <Typography variant="caption" component="p">
          {sheet.title}, {sheet.medium}; {sheet.sheets.length} read since{" "}
          {dayAndTime.format(new Date(sheet.made))}. Photos are read and not kept; nobody is named.
        </Typography>
        <Typography role="status" sx={{ minHeight: 20, mt: 1 }}>
          {left > 0 && `reading, ${left} to go`}
        </Typography>
        {refused.map(({ file, why }) => (
          <Typography role="alert" key={file} sx={{ fontWeight: 500 }}>
            {file}: {why}
          </Typography>
        ))}
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 4, mt: 1 }}>
          <Figure name="as computed">
            <PaintedSheet
              {...drawn}
              places={sheet.computed}
              label="as computed"
              size={250}
              marked={false}
            />
          </Figure>
          {sheet.sheets.length > 0 && (
            <Figure name="the class together">
              <PaintedSheet
                {...drawn}
                places={sheet.class}
                label="the mean of the class"
                size={250}
              />
            </Figure>
          )}
        </Box>
        <Box
          component="ul"
          aria-label="sheets of the class"
          sx={{ display: "flex", flexWrap: "wrap", gap: 2, p: 0, mt: 3, listStyle: "none" }}
        >
          {sheet.sheets.map((s, n) => (
            <Box component="li" key={s.id}>
              <PaintedSheet {...drawn} places={s.places} label={`sheet ${n + 1}`} size={112} />
              <Button
                color="inherit"
                size="small"
                aria-label={`leave out sheet ${n + 1}`}
                disabled={drop.isPending}
                onClick={() => drop.mutate(s.id)}
              >
                leave out
              </Button>
            </Box>
          ))}
        </Box>
        {sheet.sheets.length === 0 && (
          <Typography sx={{ mt: 2, maxWidth: 560 }}>
            Take a photo of each printed sheet when it is dry: daylight, no shadow, all four marks
            on it. Choose all photos at once; JPEG or PNG up to 12 MB each.
          </Typography>
        )}
      </Box>
      <Box component="section" aria-label="where the class strayed">
        <Typography variant="h3" sx={{ mb: 1 }}>
          {sheet.sheets.length < 3
            ? "Place by place"
            : strayed.length === 0
              ? "As a whole the class strayed nowhere"
              : `As a whole the class strayed at ${strayed.length} of ${sheet.places.length}`}
        </Typography>
        {sheet.places.map((p) => (
          <PlaceRow key={p.place} of={p} />
        ))}
      </Box>
    </Box>
  );
}

function Figure({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box component="figure" sx={{ m: 0 }}>
      {children}
      <Typography component="figcaption" variant="caption">
        {name}
      </Typography>
    </Box>
  );
}

/** A place: computed and the mean of the class edge to edge, and how they differ. */
function PlaceRow({ of }: { of: Schemas["ClassPlace"] }) {
  const { fill } = useColours();
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "72px minmax(0, 1fr) 36px",
        columnGap: 1.5,
        alignItems: "center",
        borderTop: `1px solid ${grey.hairline}`,
        py: 0.5,
      }}
    >
      <Box sx={{ display: "flex", height: 30 }}>
        <Box sx={{ flex: 1, bgcolor: fill(of.computed) }} />
        <Box sx={{ flex: 1, bgcolor: fill(of.mean) }} />
      </Box>
      <Box>
        <Typography sx={{ fontWeight: of.strayed ? 600 : 400 }}>{of.label}</Typography>
        <Typography variant="caption" component="p">
          {of.says}; {of.read} read, {of.spread} apart
        </Typography>
      </Box>
      <Box component="span" sx={{ fontFamily: figures, fontSize: 13, textAlign: "right" }}>
        {of.off.toFixed(1)}
      </Box>
    </Box>
  );
}

/** Asks for all photos of a class at once. */
function Photos({ busy, onFiles }: { busy: boolean; onFiles: (all: File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant="contained" disabled={busy} onClick={() => input.current?.click()}>
        read their sheets
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept="image/png,image/jpeg"
        aria-label="photos of their sheets"
        onChange={(e) => {
          const all = [...(e.target.files ?? [])];
          e.target.value = "";
          if (all.length > 0) onFiles(all);
        }}
      />
    </>
  );
}
