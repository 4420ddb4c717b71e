import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, type Profile, type Schemas } from "../api/client";
import { shelfQuery, sittingJournalQuery } from "../api/queries";
import { Missing } from "../app/Missing";
import { AskFirst } from "../parts/AskFirst";
import { colourFiles, TakeAlong } from "../parts/TakeAlong";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { Waiting } from "../parts/Waiting";
import { AtHand } from "../parts/holding";
import { plainSettings } from "../parts/choices";
import { showItAt } from "../parts/showing";
import { Jumps } from "./Jumps";
import { NextTime } from "./NextTime";
import { PaintedSheet } from "../parts/PaintedSheet";
import { Places } from "./Places";
import { Tubes } from "./Tubes";
import { day } from "./words";

/** What came of one sitting: computed and painted edge to edge, why they differ, what the tubes turned out to be. */
export function SittingLog({ painter }: { painter: Profile }) {
  const [deleting, setDeleting] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const id = Number(useParams().id);
  const got = useQuery(sittingJournalQuery(id));
  const journal = got.data;
  if (got.error && !journal)
    return (
      <Missing
        painter={painter}
        what="this sitting"
        sentence={got.error.message}
        to="/log"
        back="to the log"
      />
    );
  if (!journal) return <Waiting failing={got.failureCount > 0} />;
  const read = journal.places.filter((p) => p.dry ?? p.wet).length;
  const noted = journal.notes.filter((n) => n.kind === "noted");
  return (
    <Shell painter={painter} title={`Log of ${journal.name}`}>
      <AtHand
        things={[
          read > 0 && {
            name: `${journal.name}, as painted`,
            row: { sitting: id },
            view: { ...plainSettings, medium: journal.medium },
          },
        ]}
      />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 340px" },
          gap: 4,
        }}
      >
        <Box component="section" aria-label="what was painted" sx={{ minWidth: 0 }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 3 }}>
            <Typography variant="h2" sx={{ flex: "1 1 260px", overflowWrap: "anywhere" }}>
              {journal.name}
            </Typography>
            <Button component={To} to={`/bench/sitting/${id}/readings`} color="inherit">
              read what was painted
            </Button>
            <TakeAlong of={alongs(id, journal.medium)} />
            <Button color="inherit" onClick={() => setDeleting(true)}>
              delete
            </Button>
            {deleting && (
              <AskFirst
                title={`Delete the sitting of ${day(journal.began)}?`}
                yes="delete it"
                onNo={() => setDeleting(false)}
                onYes={async () => {
                  await answer(client.DELETE("/api/sittings/{id}", { params: { path: { id } } }));
                  await navigate("/log");
                  await queries.invalidateQueries();
                }}
              >
                <Typography>
                  What was done, its readings and its photos go, and cannot be taken back. Strengths
                  that were taken from it stay in the box, dated, with a word that their evidence
                  was deleted.
                </Typography>
              </AskFirst>
            )}
            <Button component={To} to="/log" color="inherit">
              all sittings
            </Button>
          </Box>
          <Typography variant="caption" component="p">
            {day(journal.began)}, {journal.medium}, {journal.title}; {read} of{" "}
            {journal.places.length} read
            {!journal.ended && "; under way"}
            {failedWords(journal)}
          </Typography>
          <Places of={journal.places} />
          {journal.dried.length > 0 && (
            <Typography aria-label="what drying did" sx={{ mt: 1.5 }}>
              <b>Wet to dry.</b> {journal.dried.join(" ")}
            </Typography>
          )}
          <Jumps of={journal.jumps} />
          {noted.map((n) => (
            <Typography key={n.id} sx={{ mt: 1.5 }}>
              {n.text}
            </Typography>
          ))}
          <NextTime journal={journal} />
          <Photos id={id} of={journal.photos} />
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box component="section" aria-label="what the tubes turned out to be">
            <Tubes journal={journal} />
          </Box>
          <Earlier journal={journal} />
        </Box>
      </Box>
    </Shell>
  );
}

/** What a sitting leaves the house as. */
const alongs = (id: number, medium: Schemas["Medium"]) => {
  const at = `/api/sittings/${id}`;
  return [
    { name: "on paper (PDF)", href: `${at}/paper`, page: true },
    { name: "as a table (CSV)", href: `${at}/export?format=csv` },
    { name: "all of it (JSON)", href: `${at}/export?format=json` },
    { name: "show it to others", to: showItAt({ ...plainSettings, medium }, "sitting", id) },
    { name: "all of it, for another painter", href: `${at}/file` },
    ...colourFiles((format) => `${at}/palette?format=${format}`, false),
  ];
};

/** How many expectations failed. */
function failedWords(journal: Schemas["SittingJournal"]): string {
  const said = journal.places.flatMap((p) => (p.expected ? [p.expected] : []));
  if (said.length === 0) return "";
  const failed = said.filter((e) => !e.hueRight || !e.verdictRight).length;
  return failed === 0
    ? `; all ${said.length} expectations came true`
    : `; ${failed} of ${said.length} expectations failed`;
}

function Photos({ id, of }: { id: number; of: Schemas["SittingPhoto"][] }) {
  if (of.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="photos"
      sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 2 }}
    >
      {of.map((p) => (
        <Box component="figure" key={p.id} sx={{ m: 0 }}>
          <a
            href={`/api/sittings/${id}/photos/${p.id}`}
            target="_blank"
            rel="noreferrer"
            aria-label={`open the photo of ${day(p.at)}`}
          >
            <img
              src={`/api/sittings/${id}/photos/${p.id}`}
              alt={`the sheet on ${day(p.at)}`}
              width={168}
              height={(168 * p.height) / p.width}
              loading="lazy"
              style={{ display: "block" }}
            />
          </a>
          <Typography component="figcaption" variant="caption">
            {day(p.at)}
            {p.standin && ", by the stand-in camera"}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** The sitting of the same wheel before this one, or else any other, to lay beside. */
function Earlier({ journal }: { journal: Schemas["SittingJournal"] }) {
  const shelf = useQuery(shelfQuery({}));
  const others = (shelf.data?.sittings ?? []).filter(
    (s) => s.id !== journal.id && s.kind === "wheel" && s.read > 0,
  );
  const self = shelf.data?.sittings.find((s) => s.id === journal.id);
  const before =
    others.find((s) => s.wheel === journal.wheel && s.began < journal.began) ??
    others.find((s) => s.wheel === journal.wheel) ??
    others[0];
  if (!before || !self || self.kind !== "wheel") return null;
  return (
    <Box
      component="section"
      aria-label="beside another"
      sx={{ borderTop: `2px solid ${grey.ink}`, mt: 3, pt: 1 }}
    >
      <Typography variant="caption" component="p">
        beside {before.name} ({day(before.began)})
      </Typography>
      <Box
        component={To}
        to={`/log/${journal.id}/beside/${before.id}`}
        aria-label={`beside ${before.name}`}
        sx={{ display: "flex", gap: 3, mt: 1 }}
      >
        {[self, before].map((s) => (
          <PaintedSheet
            key={s.id}
            places={s.places}
            kind={s.kind}
            width={s.width}
            height={s.height}
            size={92}
            label={s.name}
          />
        ))}
      </Box>
    </Box>
  );
}
