import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, type KeptWheel, type Profile, type Schemas } from "../api/client";
import { accessQuery, keptQuery, pairingsQuery } from "../api/queries";
import { classRoundsQuery, classSheetsQuery } from "../api/together";
import { Shell } from "../app/Shell";
import { figures, grey } from "../drawing/style";
import { alone } from "../parts/address";
import { Setting } from "../parts/Choice";
import { dayAndTime } from "../parts/dates";
import { Entry } from "../parts/Entry";
import { Tick } from "../parts/Tick";
import { Waiting } from "../parts/Waiting";
import { Term } from "./Term";

/** What is predicted together: a round is made of a wheel, and what came of those before. */
export function ClassPage({ painter }: { painter: Profile }) {
  const wheel = Number(useParams().wheel) || undefined;
  const kept = useQuery({ ...keptQuery(wheel ?? 0), enabled: !!wheel });
  return (
    <Shell painter={painter} title="Predicting together">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 480px) minmax(0, 1fr)" },
          columnGap: 7,
          rowGap: 4,
          maxWidth: 1160,
        }}
      >
        <Box>
          {!wheel ? (
            <>
              <Typography variant="h2" sx={{ mb: 1.5 }}>
                Predict with a class
              </Typography>
              <Typography>
                Open a wheel and take it along: <b>predict it with a class</b>. Its pairings come to
                the wall one by one, under their covers; phones predict along, without names.
              </Typography>
            </>
          ) : kept.data ? (
            <NewRound key={wheel} wheel={kept.data} />
          ) : kept.error ? (
            <Typography role="alert">{kept.error.message}</Typography>
          ) : (
            <Waiting failing={kept.failureCount > 0} />
          )}
        </Box>
        <Before />
      </Box>
    </Shell>
  );
}

const asks = { secondaries: "its secondaries", pairings: "pairings of its paints" } as const;

/** What is asked of a wheel. */
function NewRound({ wheel }: { wheel: KeptWheel }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const access = useQuery(accessQuery);
  const [what, setWhat] = useState<keyof typeof asks>("secondaries");
  const [left, setLeft] = useState<string[]>([]);
  const { medium, light, judged } = wheel.settings;
  const all = useQuery({
    ...pairingsQuery({ wheel: wheel.id, system: wheel.system }, wheel.settings),
    enabled: what === "pairings",
  });
  // In the order of the paints, and not the brightest first: that would tell.
  const { paints = [], sections = [], pairs = [] } = all.data ?? {};
  const stands = (id: string) => paints.findIndex((p) => p.id === id);
  const could = sections
    .filter((s) => s.section)
    .flatMap((s) =>
      pairs
        .filter((p) => p.predictable && p.section === s.name)
        .sort((p, q) => stands(p.a) - stands(q.a) || stands(p.b) - stands(q.b)),
    );
  const chosen = could.filter((p) => !left.includes(p.key));
  const make = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/class/rounds", {
          params: { query: { medium, light, judged } },
          body: {
            wheel: wheel.id,
            pairs: what === "pairings" ? chosen.map(({ a, b }) => ({ a, b })) : undefined,
          },
        }),
      ),
    onSuccess: (round) => {
      void queries.invalidateQueries(classRoundsQuery);
      void navigate(`/wall/round/${round.id}`);
    },
  });
  const painted = useMutation({
    mutationFn: () => answer(client.POST("/api/class/sheets", { body: { wheel: wheel.id } })),
    onSuccess: (sheet) => {
      void queries.invalidateQueries(classSheetsQuery);
      void navigate(`/class/painted/${sheet.id}`);
    },
  });
  const names = new Map(paints.map((p) => [p.id, p.name]));
  return (
    <>
      <Typography variant="h2" sx={{ mb: 1.5, overflowWrap: "anywhere" }}>
        Predict {wheel.name} together
      </Typography>
      <Box sx={{ display: "flex", alignItems: "center", columnGap: 1 }}>
        <Typography sx={{ color: grey.second }}>the class is asked about</Typography>
        <Setting label="what is asked" words={asks} value={what} onChoose={setWhat} />
      </Box>
      {what === "pairings" &&
        (all.data ? (
          <Box sx={{ display: "grid", justifyItems: "start" }}>
            {could.map((p) => (
              <Tick
                key={p.key}
                words={`${names.get(p.a)} with ${names.get(p.b)} (${p.section})`}
                on={!left.includes(p.key)}
                onSet={(on) => setLeft(on ? left.filter((k) => k !== p.key) : [...left, p.key])}
              />
            ))}
          </Box>
        ) : (
          <Waiting failing={all.failureCount > 0} />
        ))}
      <Typography sx={{ my: 2, color: grey.second }}>
        Each says where the mixture lands half way, how bright it stays, and where on the way the
        mud starts. Until you lift a cover a phone's guess is kept under a word that the phone made
        up; then it is counted, and only the numbers stay. A round is open for twelve hours at most.
      </Typography>
      {alone(access.data) && (
        <Typography sx={{ mb: 2 }}>
          Gyrophane listens on this machine alone just now, so no phone reaches it: start it with
          {" --lan"}, or count hands with keys.
        </Typography>
      )}
      <Button
        variant="contained"
        size="large"
        disabled={make.isPending || (what === "pairings" && chosen.length === 0)}
        onClick={() => make.mutate()}
      >
        put it on the wall
      </Button>
      <Button
        color="inherit"
        size="large"
        sx={{ ml: 1 }}
        disabled={painted.isPending}
        onClick={() => painted.mutate()}
      >
        read what they painted
      </Button>
      {(make.error ?? painted.error) && (
        <Typography role="alert" sx={{ mt: 1.5, fontWeight: 500 }}>
          {(make.error ?? painted.error)?.message}
        </Typography>
      )}
    </>
  );
}

/** The rounds before this one, and how the class has seen. */
function Before() {
  const queries = useQueryClient();
  const rounds = useQuery(classRoundsQuery);
  const sheets = useQuery(classSheetsQuery);
  const drop = useMutation({
    mutationFn: (id: number) =>
      answer(client.DELETE("/api/class/rounds/{id}", { params: { path: { id } } })),
    onSuccess: (left) => queries.setQueryData(classRoundsQuery.queryKey, left),
  });
  const problem = drop.error ?? rounds.error;
  return (
    <Box>
      {!!rounds.data?.eyes.length && <Eyes of={rounds.data.eyes} />}
      {rounds.data && <Term rounds={rounds.data.rounds} />}
      <Box component="section" aria-label="rounds">
        <Typography variant="h3" sx={{ mb: 1 }}>
          Rounds
        </Typography>
        {rounds.data?.rounds.length === 0 && (
          <Typography sx={{ color: grey.second }}>There was none yet.</Typography>
        )}
        {rounds.data?.rounds.map((r) => (
          <Entry
            key={r.id}
            name={r.called}
            heavy={r.open}
            says={
              <>
                {dayAndTime.format(new Date(r.made))},{" "}
                {r.open ? "open" : r.opened ? "over" : "not begun"}, {r.lifted} of {r.pairings}{" "}
                covers lifted
                {r.score.hue.said > 0 &&
                  `; ${share(r.score.hue)} saw the hue, ${share(r.score.verdict)} how bright`}
              </>
            }
          >
            <Button variant="outlined" color="inherit" component={To} to={`/wall/round/${r.id}`}>
              {r.open || !r.opened ? "to the wall" : "look at it"}
            </Button>
            <Button
              color="inherit"
              aria-label={`delete the round ${r.called}`}
              disabled={drop.isPending}
              onClick={() => drop.mutate(r.id)}
            >
              delete
            </Button>
          </Entry>
        ))}
        {problem && (
          <Typography role="alert" sx={{ mt: 1, fontWeight: 500 }}>
            {problem.message}
          </Typography>
        )}
      </Box>
      {!!sheets.data?.length && (
        <Box component="section" aria-label="painted sheets" sx={{ mt: 4 }}>
          <Typography variant="h3" sx={{ mb: 1 }}>
            What they painted
          </Typography>
          {sheets.data.map((s) => (
            <Entry
              key={s.id}
              name={s.name}
              says={`${dayAndTime.format(new Date(s.made))}, ${s.sheets} read`}
            >
              <Button
                variant="outlined"
                color="inherit"
                component={To}
                to={`/class/painted/${s.id}`}
              >
                look at it
              </Button>
            </Entry>
          ))}
        </Box>
      )}
    </Box>
  );
}

const share = ({ said, share }: Schemas["ClassCount"]) =>
  said ? `${Math.round(100 * share)} %` : "–";

/** How the class has seen, section by section. */
function Eyes({ of }: { of: Schemas["ClassEye"][] }) {
  return (
    <Box component="section" aria-label="the eye of the class" sx={{ mb: 4 }}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        The eye of the class
      </Typography>
      {of.map((e) => (
        <Box
          key={e.section}
          sx={{
            display: "grid",
            gridTemplateColumns: "90px repeat(3, minmax(0, 1fr))",
            gap: 2,
            borderTop: `1px solid ${grey.hairline}`,
            py: 1,
          }}
        >
          <Box>
            <Typography sx={{ fontWeight: 500 }}>{e.section}</Typography>
            <Typography variant="caption">
              {e.pairings === 1 ? "1 pairing" : `${e.pairings} pairings`}
            </Typography>
          </Box>
          <Saw what="hue" of={e.hue} />
          <Saw
            what="how bright"
            of={e.verdict}
            also={
              e.duller > e.brighter
                ? "it comes out duller than they say"
                : e.brighter > e.duller
                  ? "it comes out brighter than they say"
                  : undefined
            }
          />
          <Saw what="start of the mud" of={e.mud} />
        </Box>
      ))}
    </Box>
  );
}

function Saw({ what, of, also }: { what: string; of: Schemas["ClassCount"]; also?: string }) {
  return (
    <Box>
      <Typography variant="caption" component="p">
        {what}: <span style={{ fontFamily: figures }}>{share(of)}</span>
      </Typography>
      <Box sx={{ height: 8, bgcolor: grey.track, my: 0.5 }}>
        <Box
          sx={{
            height: 1,
            width: `${100 * of.share}%`,
            bgcolor: grey.ink,
          }}
        />
      </Box>
      {also && (
        <Typography variant="caption" component="p">
          {also}
        </Typography>
      )}
    </Box>
  );
}
