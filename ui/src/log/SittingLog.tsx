import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To, useParams } from "react-router";
import type { Profile, Schemas } from "../api/client";
import { sittingJournalQuery } from "../api/queries";
import { Shell } from "../app/Shell";
import { fill } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import { Waiting } from "../parts/Waiting";
import { Spindles } from "./Spindles";

type Place = Schemas["JournalPlace"];

/** What came of one sitting: computed and painted edge to edge, why they differ, what the tubes seem to be. */
export function SittingLog({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  const got = useQuery(sittingJournalQuery(id));
  const journal = got.data;
  if (got.error && !journal)
    return (
      <Shell painter={painter} title="There is no such sitting">
        <Typography variant="h2">This sitting is not here</Typography>
        <Typography sx={{ my: 2 }}>{got.error.message}</Typography>
        <To to="/log">to the log</To>
      </Shell>
    );
  if (!journal) return <Waiting failing={got.failureCount > 0} />;
  const read = journal.places.filter((p) => p.dry ?? p.wet).length;
  const noted = journal.notes.filter((n) => n.kind === "noted");
  return (
    <Shell painter={painter} title={`Log of ${journal.name}`}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 340px" },
          gap: 4,
        }}
      >
        <Box component="section" aria-label="what was painted" sx={{ minWidth: 0 }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 3 }}>
            <Typography variant="h2" sx={{ flex: 1 }}>
              {journal.name}
            </Typography>
            <Button component={To} to={`/bench/sitting/${id}/readings`} color="inherit">
              read what was painted
            </Button>
            <Button component={To} to="/log" color="inherit">
              all sittings
            </Button>
          </Box>
          <Typography variant="caption" component="p">
            {new Date(journal.began).toLocaleDateString("en-GB", { dateStyle: "long" })},{" "}
            {journal.medium}, {journal.title}; {read} of {journal.places.length} read
            {!journal.ended && "; under way"}
          </Typography>
          <Box
            role="table"
            aria-label="places"
            sx={{ mt: 1, "& [role=row]": { display: "grid", alignItems: "center", gap: 1.5 } }}
          >
            <Box
              role="row"
              sx={{
                gridTemplateColumns: columns,
                borderBottom: `2px solid ${grey.ink}`,
                color: grey.third,
                fontSize: 13,
                pb: 0.5,
              }}
            >
              <span role="columnheader">place</span>
              <span role="columnheader">computed, read wet, read dry</span>
              <span role="columnheader">what came of it</span>
            </Box>
            {journal.places.map((p) => (
              <Row key={p.slot} place={p} />
            ))}
          </Box>
          {noted.map((n) => (
            <Typography key={n.id} sx={{ mt: 1.5 }}>
              {n.text}
            </Typography>
          ))}
        </Box>
        <Box component="section" aria-label="what the tubes seem to be" sx={{ minWidth: 0 }}>
          <Typography sx={{ fontSize: 20, fontWeight: 600 }}>What the tubes seem to be</Typography>
          {journal.learned ? (
            <Tubes learned={journal.learned} />
          ) : (
            <Typography sx={{ mt: 1 }}>{journal.tooFew}</Typography>
          )}
        </Box>
      </Box>
    </Shell>
  );
}

const columns = { xs: "64px 48px minmax(0, 1fr)", sm: "190px 200px minmax(0, 1fr)" } as const;

/** One place: chips without gaps, the difference as a bar, and in words. */
function Row({ place: p }: { place: Place }) {
  const odd = !!p.dry && !p.asComputed && !p.doubt;
  const why = p.causes.map((c) => c.says).join("; or ");
  const says = !p.dry
    ? p.wet
      ? "read wet alone"
      : "not read"
    : p.doubt
      ? `doubted: ${p.doubt}`
      : p.asComputed
        ? "as computed"
        : `${p.says}: ${why || "not explained"}`;
  return (
    <Box
      role="row"
      data-place={p.slot}
      sx={{ gridTemplateColumns: columns, minHeight: 36, py: "2px" }}
    >
      <Typography
        role="rowheader"
        noWrap
        title={p.label}
        sx={{ fontWeight: odd ? 600 : 400, fontSize: 15 }}
      >
        {p.label}
      </Typography>
      <Box role="cell" sx={{ display: "flex", height: 32 }}>
        <Box sx={{ flex: 1, bgcolor: fill(p.computed) }} />
        {p.wet && <Box sx={{ flex: 1, bgcolor: fill(p.wet) }} />}
        {p.dry && <Box sx={{ flex: 1, bgcolor: fill(p.dry) }} />}
      </Box>
      <Box role="cell" sx={{ display: "flex", gap: 1.5, alignItems: "center", minWidth: 0 }}>
        <Box
          aria-hidden
          sx={{
            flex: "none",
            width: 4,
            height: Math.min(28, 3 + 2 * p.difference),
            bgcolor: odd ? grey.ink : grey.mark,
          }}
        />
        <Box sx={{ minWidth: 0, overflowWrap: "anywhere" }}>
          <Typography sx={{ fontSize: 15, color: odd ? grey.ink : grey.second }}>{says}</Typography>
          {p.dries && <Typography variant="caption">dried {p.dries}</Typography>}
        </Box>
        {p.dry && (
          <Typography
            variant="caption"
            sx={{
              fontFamily: figures,
              ml: "auto",
              flex: "none",
              display: { xs: "none", sm: "block" },
            }}
            title="CIEDE2000"
          >
            {p.difference.toFixed(1)}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

/** Strengths on a scale of doublings, and whether they are better by more than chance. */
function Tubes({ learned }: { learned: Schemas["Learned"] }) {
  const told = learned.strengths.filter(
    (s) => s.settled && (s.low > s.old * 1.02 || s.high < s.old * 0.98),
  );
  return (
    <>
      <Typography>From {learned.readings} dry readings of this sitting.</Typography>
      <Spindles strengths={learned.strengths} />
      <Typography sx={{ fontWeight: 600, mt: 1 }}>
        {learned.proposed && told.length > 0
          ? told
              .map(
                (s) =>
                  `The ${s.name}: about ${(s.new / s.old).toFixed(1)} times as strong, to the mean of these tubes.`,
              )
              .join(" ")
          : "No more than chance: the tubes are as they were taken to be."}
      </Typography>
      <Typography sx={{ mt: 1 }}>
        Misses of {learned.errorBefore.toFixed(1)} would fall to {learned.errorAfter.toFixed(1)}; on
        places left out to {learned.errorLeftOut.toFixed(1)} (CIEDE2000).
      </Typography>
      {learned.separate > 1 && (
        <Typography sx={{ mt: 1 }}>
          {learned.separate} groups of tubes never meet on this sheet, so that only the ratios
          within each are told. Neutral circles, or a few tints with white, would join them.
        </Typography>
      )}
      <Typography variant="caption" component="p" sx={{ mt: 1.5 }}>
        A photo is not a meter. Only ratios are told; a spindle is as wide as the readings leave
        open.
      </Typography>
    </>
  );
}
