import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import { answer, client, type Schemas } from "../api/client";
import { sittingJournalQuery } from "../api/queries";
import { Open } from "./Open";
import { Spindles } from "./Spindles";
import { Takings } from "./Takings";
import { percent } from "../parts/naming";
import { Word } from "../parts/Word";

type Journal = Schemas["SittingJournal"];

/** What the tubes turned out to be, and the way to take it into the box. */
export function Tubes({ journal }: { journal: Journal }) {
  const l = journal.learned;
  const last = journal.takings.find((t) => !t.undone);
  return (
    <>
      <Typography sx={{ fontSize: 20, fontWeight: 600 }}>
        What the tubes turned out to be
      </Typography>
      <Open journal={journal} />
      {!l && <Typography sx={{ mt: 1 }}>{journal.tooFew}</Typography>}
      {l?.nonsense && <Typography sx={{ mt: 1 }}>{l.says.join(" ")}</Typography>}
      {l && !l.nonsense && (
        <>
          <Typography>
            From {l.readings} dry readings of{" "}
            {journal.sittings === 1 ? "this sitting" : `${journal.sittings} sittings`}
            {journal.leftOut > 0 &&
              `, without ${journal.leftOut} that the tubes are not the cause of`}
            .
          </Typography>
          <Spindles strengths={l.strengths} />
          {!journal.overall.some((c) => c.open) && (
            <Typography sx={{ fontWeight: 600, mt: 1 }}>{found(journal)}</Typography>
          )}
          <Typography sx={{ mt: 1 }}>
            {l.errorAfter < l.errorBefore - 0.05
              ? `Misses fall from ${l.errorBefore.toFixed(1)} to ${l.errorAfter.toFixed(1)}; on places left out: ${l.errorLeftOut.toFixed(1)}.`
              : `Misses are ${l.errorBefore.toFixed(1)}, and no other strengths would make them less.`}
          </Typography>
          {l.separate > 1 && (
            <Typography sx={{ mt: 1 }}>
              {l.separate} groups of tubes never meet in what was read, so that only the ratios
              within each are told. Neutral circles, or a few tints with white, would join them.
            </Typography>
          )}
        </>
      )}
      {journal.film && (
        <Typography sx={{ mt: 1 }}>
          Over the usual film of {journal.medium}: {journal.film.was.toFixed(2)} until now,{" "}
          {journal.film.is.toFixed(2)} as it turned out ({journal.film.low.toFixed(2)} to{" "}
          {journal.film.high.toFixed(2)}).
        </Typography>
      )}
      {journal.knows && (
        <Typography sx={{ mt: 1 }}>
          The parts of this sheet’s mixtures are known to {percent(journal.knows.now)} with these
          readings, to {percent(journal.knows.before)} without them.
        </Typography>
      )}
      {(journal.offered.length > 0 || journal.film || (journal.knows && !journal.kept)) && (
        <Offer key={offerKey(journal)} journal={journal} />
      )}
      {last && last.strengths.length > 0 && journal.offered.length === 0 && (
        <Typography sx={{ mt: 1.5 }}>
          <To to={`/log/redraw/${journal.wheel}`}>Redraw the wheel</To> with what the tubes turned
          out to be.
        </Typography>
      )}
      {journal.takings.length > 0 && (
        <Box sx={{ mt: 2 }}>
          <Takings of={journal.takings} />
        </Box>
      )}
      <Typography variant="caption" component="p" sx={{ mt: 1.5 }}>
        A photo is not a meter. A <Word of="spindle" /> is as wide as the readings leave open; the
        stroke is what the tube is taken for.
      </Typography>
    </>
  );
}

/** What was found, in sentences. */
function found(journal: Journal): string {
  const says = journal.learned!.says;
  if (says.length > 0)
    return `${says.join(" ")}${says.length < journal.learned!.strengths.length ? " The rest is within what the readings can tell." : ""}`;
  return journal.takings.some((t) => !t.undone)
    ? "They are as they are taken to be now."
    : "No more than chance: the tubes are as they were taken to be.";
}

const offerKey = (j: Journal) =>
  j.offered.map((s) => `${s.paint}${s.is}`).join(" ") + (j.film?.is ?? "");

/** The painter's yes or no. */
function Offer({ journal }: { journal: Journal }) {
  const queries = useQueryClient();
  const [later, setLater] = useState(false);
  const take = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/sittings/{id}/strengths", {
          params: { path: { id: journal.id } },
          body: {
            strengths: journal.offered.map((s) => ({ paint: s.paint, is: s.is })),
            film: journal.film?.is,
          },
        }),
      ),
    onSuccess: async (came) => {
      queries.setQueryData(sittingJournalQuery(journal.id).queryKey, came);
      await queries.invalidateQueries(); // the box, wheels and matches follow
    },
    onError: () => void queries.invalidateQueries(sittingJournalQuery(journal.id)),
  });
  if (later)
    return (
      <Typography sx={{ mt: 2 }}>
        Left as it was.{" "}
        <Button color="inherit" onClick={() => setLater(false)}>
          look again
        </Button>
      </Typography>
    );
  const fresh = journal.offered.filter((s) => s.tube === 0);
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="body2">
        {journal.film &&
          "What you plan and paint from now on is computed with that film; sittings stay as they were. "}
        {journal.offered.length > 0 && "Wheels stay as they were kept until you redraw them."}
        {fresh.length > 0 &&
          ` ${fresh.map((s) => s.name).join(" and ")} ${fresh.length === 1 ? "comes" : "come"} into the box with it.`}
      </Typography>
      <Box sx={{ display: "flex", gap: 2, mt: 1 }}>
        <Button
          variant="contained"
          disabled={take.isPending}
          onClick={() => take.mutate()}
          sx={{ minHeight: 52, px: 2.5 }}
        >
          {journal.offered.length > 0
            ? "take it into the box"
            : journal.film
              ? "take it from now on"
              : "keep how far they are known"}
        </Button>
        <Button color="inherit" onClick={() => setLater(true)}>
          not now
        </Button>
      </Box>
      {take.error && <Typography role="alert">{take.error.message}</Typography>}
    </Box>
  );
}
