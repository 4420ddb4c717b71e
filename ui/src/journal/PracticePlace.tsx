import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To, useParams } from "react-router";
import { answer, client, type Profile, type Schemas, type Settings } from "../api/client";
import { boxQuery, guessesQuery, pairQuery, practiceQuery } from "../api/queries";
import { plainSettings } from "../parts/choices";
import { HueAndDrop, mudWords, MudTrack, Said, whole, type Expecting } from "../parts/Expect";
import { KeptShell, MissingWheel } from "../app/Kept";
import { nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { useKeptWheel } from "../parts/useKeptWheel";
import { Waiting } from "../parts/Waiting";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { Swatch } from "../drawing/Swatch";
import { Fared } from "./Fared";

type Round = Schemas["Round"];
type Asked = Schemas["PracticePair"];

export function PracticePlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <PracticeFrom key={id} id={id} painter={painter} />;
}

/** Ten pairings of the box, one after the other: guess, lift, go on; and how the eye has fared. */
function PracticeFrom({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const queries = useQueryClient();
  const settings = own.content?.settings ?? plainSettings;
  const { medium, light, judged } = settings;
  const asked = practiceQuery(settings);
  const under = useQuery(asked);
  const kept = useQuery(guessesQuery);
  const box = useQuery(boxQuery(settings));
  const [at, setAt] = useState<number | null>(null);
  const keep = (p: Schemas["Practice"]) => queries.setQueryData(asked.queryKey, p);
  const query = { medium, light, judged };
  const begin = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/practice", {
          params: { query: { ...query, spacing: settings.choices.spacing } },
        }),
      ),
    onSuccess: (p) => {
      keep(p);
      setAt(null);
    },
  });
  const commit = useMutation({
    mutationFn: ({
      round,
      place,
      said,
    }: {
      round: number;
      place: number;
      said: Schemas["Expected"];
    }) =>
      answer(
        client.POST("/api/practice/{id}/answers", {
          params: { path: { id: round }, query },
          body: { place, ...said },
        }),
      ),
    onSuccess: (p, { place }) => {
      keep(p);
      setAt(place);
      void queries.invalidateQueries(guessesQuery);
    },
    onError: () => void queries.invalidateQueries(asked),
  });
  const end = useMutation({
    mutationFn: (round: number) =>
      answer(client.DELETE("/api/practice/{id}", { params: { path: { id: round } } })),
    onSuccess: () => {
      keep({});
      setAt(null);
      void queries.invalidateQueries(guessesQuery);
    },
  });
  const { content } = own;
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content || !under.data || !kept.data)
    return <Waiting failing={own.query.failureCount + under.failureCount > 0} />;
  const round = under.data.round ?? null;
  const names = new Map((box.data?.tubes ?? []).map((t) => [t.paint.id, nameOf(t)]));
  const next = round?.pairs.findIndex((p) => !p.outcome) ?? -1;
  const place = at ?? (next < 0 ? (round?.pairs.length ?? 1) - 1 : next);
  const problem = begin.error ?? commit.error ?? end.error;
  const finished = round !== null && next < 0;
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="pairings">
      <Box sx={{ display: "flex", alignItems: "flex-end", flexWrap: "wrap", columnGap: 3 }}>
        <Box sx={{ flex: 1, minWidth: 260 }}>
          <Typography variant="h2">Practice</Typography>
          <Typography sx={{ color: grey.second }}>
            Pairings drawn from your box, more of them from the sections where the eye was wrong.
          </Typography>
        </Box>
        <Button color="inherit" component={To} to={`/pairings/${id}`}>
          back to the pairings
        </Button>
      </Box>
      {problem && (
        <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
          {problem.message}
        </Typography>
      )}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 400px" },
          gap: 4,
          mt: 2,
        }}
      >
        <Box component="section" aria-label="the round">
          {!round ? (
            <Box
              sx={{
                display: "flex",
                flexDirection: "column",
                alignItems: "flex-start",
                gap: 2,
                pt: 2,
              }}
            >
              <Typography variant="subtitle1">
                Ten pairings. For each you say the hue half way, how bright it stays and where the
                mud starts, then the cover comes off.
              </Typography>
              <Button
                variant="contained"
                size="large"
                disabled={begin.isPending}
                onClick={() => begin.mutate()}
              >
                begin a round
              </Button>
              <Misses id={id} of={kept.data.missed} settings={settings} />
            </Box>
          ) : (
            <>
              <Places
                round={round}
                at={place}
                onGo={setAt}
                called={(p) => names.get(p.id) ?? p.name}
              />
              <OnePair
                key={`${round.id} ${place}`}
                pair={round.pairs[place]!}
                place={place}
                of={round.pairs.length}
                each={round.each}
                hues={kept.data.hues}
                called={(p) => names.get(p.id) ?? p.name}
                busy={commit.isPending}
                onCommit={(said) => commit.mutate({ round: round.id, place, said })}
              />
              <Box
                sx={{
                  display: "flex",
                  alignItems: "center",
                  gap: 2,
                  mt: 2,
                  borderTop: `1px solid ${grey.hairline}`,
                  pt: 1,
                }}
              >
                {finished ? (
                  <>
                    <Typography variant="h3">
                      {round.points} of {round.outOf}
                    </Typography>
                    <Button
                      variant="contained"
                      disabled={begin.isPending}
                      onClick={() => begin.mutate()}
                    >
                      another round
                    </Button>
                  </>
                ) : (
                  <>
                    {round.pairs[place]!.outcome && (
                      <Button variant="contained" onClick={() => setAt(null)}>
                        the next one
                      </Button>
                    )}
                    <Typography sx={{ color: grey.second }}>
                      {round.outOf > 0 && `${round.points} of ${round.outOf} so far`}
                    </Typography>
                    <Box sx={{ flex: 1 }} />
                    <Button
                      color="inherit"
                      disabled={end.isPending}
                      onClick={() => end.mutate(round.id)}
                    >
                      put this round away
                    </Button>
                  </>
                )}
              </Box>
            </>
          )}
        </Box>
        <Fared kept={kept.data} />
      </Box>
    </KeptShell>
  );
}

/** The places of a round: a drop of what came where it was answered, a lid where not. */
function Places({
  round,
  at,
  onGo,
  called,
}: {
  round: Round;
  at: number;
  onGo: (i: number) => void;
  called: (p: Asked["a"]) => string;
}) {
  return (
    <Box role="group" aria-label="places of the round" sx={{ display: "flex", gap: "3px", mb: 2 }}>
      {round.pairs.map((p, i) => (
        <Box
          key={i}
          component="button"
          aria-label={`${i + 1}: ${called(p.a)} with ${called(p.b)}${p.outcome ? `, ${p.outcome.points} of ${round.each}` : ", covered"}`}
          aria-current={i === at ? "step" : undefined}
          onClick={() => onGo(i)}
          sx={{
            flex: 1,
            minHeight: 44,
            p: 0.5,
            border: 0,
            borderBottom: `3px solid ${i === at ? grey.ink : grey.hairline}`,
            bgcolor: p.outcome ? "transparent" : grey.track,
            color: grey.ink,
            fontFamily: figures,
            fontSize: 13,
            cursor: "pointer",
          }}
        >
          {p.outcome ? `${p.outcome.points}/${round.each}` : i + 1}
        </Box>
      ))}
    </Box>
  );
}

function OnePair({
  pair,
  place,
  of,
  each,
  hues,
  called,
  busy,
  onCommit,
}: {
  pair: Asked;
  place: number;
  of: number;
  each: number;
  hues: string[];
  called: (p: Asked["a"]) => string;
  busy: boolean;
  onCommit: (said: Schemas["Expected"]) => void;
}) {
  const [draft, setDraft] = useState<Expecting>({});
  const [a, b] = [called(pair.a), called(pair.b)];
  const both = `${a} with ${b}`;
  const said = whole(draft);
  const parent = (p: Asked["a"], name: string) => (
    <Box sx={{ flex: 1, minWidth: 0 }}>
      <Box sx={{ display: "flex" }}>
        <Swatch colour={p.masstone} height={56} />
        <Swatch colour={p.undertone} height={56} />
      </Box>
      <Typography sx={{ fontWeight: 500 }}>{name}</Typography>
      <Typography variant="caption">{p.code} · masstone, undertone</Typography>
    </Box>
  );
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}>
      <Typography variant="caption">
        {place + 1} of {of} · {pair.section}
      </Typography>
      <Box sx={{ display: "flex", gap: 3 }}>
        {parent(pair.a, a)}
        {parent(pair.b, b)}
      </Box>
      {pair.outcome && pair.said ? (
        <>
          {pair.band && (
            <Box sx={{ position: "relative" }}>
              <Ribbon band={pair.band} height={88} />
              {!pair.said.mud.nowhere && (
                <Box
                  sx={{
                    position: "absolute",
                    top: 0,
                    height: 88,
                    left: `${100 * pair.said.mud.at}%`,
                    width: "2px",
                    bgcolor: grey.ink,
                  }}
                  aria-hidden
                />
              )}
            </Box>
          )}
          <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
            <Drop verdict={pair.outcome.came} height={28} />
            <Typography variant="h3">
              {pair.outcome.computed}, {pair.outcome.came}
            </Typography>
            <Typography sx={{ fontFamily: figures, color: grey.second }}>
              {pair.outcome.retention.toFixed(2)}
            </Typography>
            <Typography sx={{ color: grey.second }}>
              {mudWords(pair.outcome.mudCame, a, b)}
            </Typography>
          </Box>
          <Said said={pair.said} outcome={pair.outcome} each={each} from={a} to={b} />
          <Typography>{pair.because}</Typography>
        </>
      ) : (
        <>
          <MudTrack
            of={both}
            from={pair.a.undertone}
            to={pair.b.undertone}
            value={draft}
            onSet={setDraft}
            height={88}
          />
          <Box sx={{ maxWidth: 400 }}>
            <Typography variant="subtitle2">Half way between them it will be</Typography>
            <HueAndDrop of={both} hues={hues} value={draft} onSet={setDraft} />
          </Box>
          <Box>
            <Button
              variant="contained"
              size="large"
              disabled={!said || busy}
              onClick={() => said && onCommit(said)}
            >
              commit and lift the cover
            </Button>
          </Box>
        </>
      )}
    </Box>
  );
}

/** How many misses are drawn at most. */
const mostDrawn = 8;

/** What the last round went wrong at, drawn; each is one press from its path. */
function Misses({
  id,
  of,
  settings,
}: {
  id: number;
  of: Schemas["Guessed"][];
  settings: Settings;
}) {
  const ways = useQueries({
    queries: of
      .slice(0, mostDrawn)
      .map(({ a, b }) => pairQuery({ wheel: id, a, b, steps: 3 }, settings)),
  });
  if (of.length === 0) return null;
  return (
    <Box aria-label="missed in the last round" role="group" sx={{ width: 1 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        Missed in the last round
      </Typography>
      {of.slice(0, mostDrawn).map((g, i) => {
        const pair = ways[i]?.data;
        return (
          <Box
            key={g.key}
            component={To}
            to={`/path/${id}?${new URLSearchParams({ a: g.a, b: g.b })}`}
            sx={{
              display: "block",
              color: grey.ink,
              textDecoration: "none",
              py: 0.5,
              minHeight: 60,
              "&:hover": { bgcolor: grey.track },
            }}
          >
            {pair && (
              <>
                <Ribbon band={pair.samples} height={30} middle={false} />
                <Typography component="span" sx={{ fontWeight: 500 }}>
                  {pair.a.name} with {pair.b.name}
                </Typography>{" "}
                <Typography component="span" variant="body2" sx={{ color: grey.second }}>
                  you said {g.hueWord}, {g.verdict}; it comes {g.computed}, {g.came}
                </Typography>
              </>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
