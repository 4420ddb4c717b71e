import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To, useParams } from "react-router";
import { answer, client, Refused, type Profile, type Schemas, type Sitting } from "../api/client";
import { meaningOf, pause } from "../api/outbox";
import { sittingQuery, sittingReadsQuery } from "../api/queries";
import { useServerNow } from "../api/serverClock";
import { newId } from "../api/writing";
import { Missing } from "../app/Missing";
import { Shell } from "../app/Shell";
import { useColours } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import { useAddress } from "../parts/useAddress";
import { Waiting } from "../parts/Waiting";
import { Setting } from "../parts/Choice";
import { Tabs } from "../parts/Tabs";
import { ByEye } from "./ByEye";
import { ByFile } from "./ByFile";
import { ByMeter } from "./ByMeter";
import type { ToKeep } from "./toKeep";
import { ByPhoto } from "./ByPhoto";

const ways = { photo: "by photo", eye: "by eye", meter: "by meter", file: "from a file" } as const;
const states = { dry: "dry", wet: "wet" } as const;

/** What was painted, read: by photo, by eye or with the meter. */
export function ReadingsPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  const queries = useQueryClient();
  const query = useQuery(sittingQuery(id));
  const reads = useQuery(sittingReadsQuery(id));
  const { show, one } = useAddress();
  const way = one<keyof typeof ways>("by", ways, "photo");
  const state = one<keyof typeof states>("state", states, "dry");
  const keep = useMutation({
    mutationFn: (readings: ToKeep[]) =>
      answer(
        client.POST("/api/sittings/{id}/readings", {
          params: { path: { id } },
          body: { readings },
        }),
      ),
    // Sent again the same to the letter: the server keeps each once, by its id.
    retry: (_, e) => e instanceof Refused && meaningOf(e.status) === "later",
    retryDelay: (n, e) => pause(n, e instanceof Refused ? e.retryAfter : undefined),
    onSuccess: (all) => queries.setQueryData(sittingReadsQuery(id).queryKey, all),
  });
  const [sure, setSure] = useState(false);
  const now = useServerNow();
  const onKeep = (readings: ToKeep[]) =>
    keep.mutate(readings.map((r) => ({ ...r, id: newId(), dry: sure && !r.wet })));
  const sitting = query.data;
  if (query.error && !sitting)
    return (
      <Missing
        painter={painter}
        what="this sitting"
        sentence={query.error.message}
        to="/bench"
        back="to the bench"
      />
    );
  if (!sitting || !reads.data) return <Waiting failing={query.failureCount > 0} />;
  const wet = state === "wet";
  const wetYet = sitting.plan.regions.filter((_, i) => sitting.places[i]!.dry > now);
  const ran = sitting.plan.regions.filter((_, i) => sitting.places[i]!.ran);
  return (
    <Shell
      painter={painter}
      title={`Readings of ${sitting.name}`}
      open={
        <Typography noWrap sx={{ fontWeight: 500 }}>
          {sitting.name}
        </Typography>
      }
      wet
      beside={
        <Typography variant="caption">
          {sitting.plan.medium} · {sitting.plan.title}, what was painted
        </Typography>
      }
    >
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 4,
          alignItems: "center",
          "& [role=radio]": { minHeight: 56 },
        }}
      >
        <Tabs label="read" words={ways} value={way} onChoose={(by) => show({ by })} />
        {way !== "file" && (
          <Setting
            label="it is"
            words={states}
            value={state}
            onChoose={(v) => show({ state: v })}
          />
        )}
        <Box sx={{ flex: 1 }} />
        <Button
          component={To}
          to={`/bench/sitting/${id}`}
          color="inherit"
          sx={{ minHeight: 56, px: 0 }}
        >
          back to the sitting
        </Button>
      </Box>
      {!wet && wetYet.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
          <Typography role="status">
            {wetYet.map((r) => r.label).join(", ")} {wetYet.length === 1 ? "is" : "are"}{" "}
            {sure
              ? "taken for dry, as you say."
              : "wet yet, by the time it takes: what is read now is kept as wet."}
          </Typography>
          <Button color="inherit" sx={{ minHeight: 56 }} onClick={() => setSure(!sure)}>
            {sure ? "go by their time" : "it is dry"}
          </Button>
        </Box>
      )}
      {ran.length > 0 && (
        <Typography role="status">
          Something ran into {ran.map((r) => r.label).join(", ")}: what is read there is doubted
          until it is gone over.
        </Typography>
      )}
      {keep.error && <Typography role="alert">{keep.error.message}</Typography>}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 420px" },
          gap: 3,
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          {way === "photo" && (
            <ByPhoto
              sitting={sitting}
              photos={reads.data.photos}
              wet={wet}
              demo={painter.demo}
              onKeep={onKeep}
            />
          )}
          {way === "eye" && (
            <ByEye key={state} sitting={sitting} wet={wet} onKeep={(r) => onKeep([r])} />
          )}
          {way === "meter" && <ByMeter sitting={sitting} wet={wet} onKeep={(r) => onKeep([r])} />}
          {way === "file" && <ByFile sitting={sitting} />}
        </Box>
        <Kept sitting={sitting} reads={reads.data} />
      </Box>
    </Shell>
  );
}

const sources = { photo: "photo", eye: "eye", instrument: "meter" } as Record<string, string>;

/** Each place as computed and as it was read, the last reading of each state; earlier ones are kept. */
function Kept({ sitting, reads }: { sitting: Sitting; reads: Schemas["SittingReads"] }) {
  const { fill } = useColours();
  const { readings, tests } = reads;
  const last = (slot: string, wet: boolean) =>
    readings.filter((r) => r.slot === slot && r.wet === wet).at(-1);
  const read = sitting.plan.regions.filter((r) => readings.some((k) => k.slot === r.id)).length;
  return (
    <Box component="section" aria-label="what was read">
      <Typography sx={{ fontWeight: 600 }}>
        {read} of {sitting.plan.regions.length} read
        {readings.length > read && `, ${readings.length} readings in all`}
      </Typography>
      <Box
        role="group"
        aria-label="places and what was read of them"
        tabIndex={0}
        sx={{ maxHeight: { md: "calc(100vh - 230px)" }, overflowY: { md: "auto" } }}
      >
        {sitting.plan.regions.map((r, i) => {
          const [wet, dry] = [last(r.id, true), last(r.id, false)];
          const shown = dry ?? wet;
          return (
            <Box
              key={r.id}
              data-read={r.id}
              sx={{
                display: "grid",
                gridTemplateColumns: "132px minmax(0, 1fr) auto",
                gap: 1.5,
                alignItems: "center",
                minHeight: 34,
                borderBottom: `1px solid ${grey.hairline}`,
              }}
            >
              <Box sx={{ display: "flex", height: 22 }} aria-hidden>
                <Box sx={{ flex: 1, bgcolor: fill(sitting.places[i]!.dried) }} />
                {wet && <Box sx={{ flex: 1, bgcolor: fill(wet) }} />}
                {dry && <Box sx={{ flex: 1, bgcolor: fill(dry) }} />}
              </Box>
              <Typography variant="body2" noWrap title={r.label}>
                {r.label}
              </Typography>
              <Typography variant="caption" sx={{ fontFamily: figures }}>
                {shown
                  ? `${sources[shown.source] ?? shown.source}${shown.doubt ? ", doubted" : ""}`
                  : "not yet"}
              </Typography>
            </Box>
          );
        })}
      </Box>
      <Typography variant="caption">
        Edge to edge: computed, read wet, read dry.
        {tests.length > 0 &&
          ` ${tests.length} test ${tests.length === 1 ? "swatch was" : "swatches were"} read by eye besides.`}
      </Typography>
    </Box>
  );
}
