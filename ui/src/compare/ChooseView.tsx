import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { Conditions, Schemas, Selection } from "../api/client";
import {
  boxQuery,
  chooseQuery,
  endSearch,
  paintsQuery,
  searchingQuery,
  type Choosing,
  placesQuery,
} from "../api/queries";
import { OneOf, Setting } from "../parts/Choice";
import { nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { joined, listIn, relisted, useAddress } from "../parts/useAddress";
import { SystemRing } from "../parts/SystemRing";
import { Word } from "../parts/Word";
import { useNewWheel } from "../parts/useNewWheel";
import { Both } from "../drawing/Swatch";
import { Replace } from "./Replace";

const kinds = { triad: "a triad", split: "split primaries", double: "double primaries" } as const;
const aims = {
  coverage: "the most clean hues",
  price: "the least price",
  tubes: "the fewest tubes",
  targets: "my wanted colours",
} as const;
const said = {
  coverage: "The most hues reached cleanly",
  price: "The cheapest of those that reach nearly as many hues cleanly as the best",
  tubes: "The fewest tubes that reach nearly as many hues cleanly as the best",
  targets: "The most wanted colours reached, then the nearest to all of them",
} as const;
const froms = { box: "from my box", library: "from the whole library" } as const;

/** What light may do to the paints that are chosen. */
const lights = { any: "lightfast or not", yes: "lightfast: I and II" } as const;

/** The best system of a kind for clean coverage, exactly; what comes next, and what to buy. */
export function ChooseView({ view }: { view: Conditions }) {
  const { search, show, one } = useAddress();
  const kind = one<Choosing["kind"]>("kind", kinds, "split");
  const from = one<Choosing["from"]>("from", froms, "box");
  const wish = one<Choosing["aim"]>("aim", aims, "coverage");
  const aim = from === "library" && wish === "price" ? "coverage" : wish;
  const careful = search.get("careful") === "yes";
  const lasting = search.get("lasting") === "yes";
  const without = listIn(search, "without") ?? [];
  const contains = listIn(search, "contains") ?? [];
  const got = useQuery(chooseQuery({ kind, from, aim, careful, lasting, without, contains }, view));
  const box = useQuery(boxQuery(view));
  const library = useQuery(paintsQuery(view));
  const make = useNewWheel();
  const queries = useQueryClient();
  const tubes = new Map((box.data?.tubes ?? []).map((t) => [t.paint.id, nameOf(t)]));
  const called = (p: { id: string; name: string }) => tubes.get(p.id) ?? p.name;
  const all =
    from === "box"
      ? (box.data?.tubes ?? []).map((t) => ({ value: t.paint.id, name: nameOf(t) }))
      : (library.data ?? []).map((p) => ({ value: p.id, name: p.shortName }));
  const chosen = got.error ? undefined : got.data;
  const named = new Map((got.data?.cautions ?? []).map((c) => [c.class, c.name]));
  const selectionOf = (s: Schemas["ChosenSystem"]): Selection => ({
    kind,
    roles: s.roles.map((r) => (r ?? []).map((p) => p.id)),
    chosen: [[], [], []],
    riders: {},
    note: "",
  });
  const keep = (s: Schemas["ChosenSystem"]) =>
    make.mutate({
      name: `best ${kind === "triad" ? "triad" : kind} ${from === "box" ? "of the box" : "of the library"}`,
      place: "wheel",
      system: selectionOf(s),
    });
  return (
    <Box component="section" aria-label="choose" sx={{ mt: 0.5 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 4, alignItems: "center" }}>
        <Setting
          label="kind of system"
          words={kinds}
          value={kind}
          onChoose={(v) => show({ kind: v })}
        />
        <Setting
          label="chosen from"
          words={froms}
          value={from}
          onChoose={(v) => show({ from: v, contains: undefined })}
        />
        <Setting label="for" words={aims} value={aim} onChoose={(v) => show({ aim: v })} />
        <OneOf
          label="cautions"
          shown={
            careful
              ? "none to be careful with"
              : without.length > 0
                ? `leaving out: ${without.map((c) => named.get(c) ?? c).join(", ")}`
                : "whatever their cautions"
          }
          of={[
            { value: "", name: "whatever their cautions" },
            { value: "all", name: "none to be careful with" },
            ...[...named].map(([value, name]) => ({ value, name: `leave out: ${name}` })),
          ]}
          value={careful ? "all" : (without.at(-1) ?? "")}
          onChoose={(v) =>
            show({
              careful: v === "all" ? "yes" : undefined,
              ...relisted("without", v === "" || v === "all" ? () => [] : joined(v)),
            })
          }
        />
        <Setting
          label="in light"
          words={lights}
          value={lasting ? "yes" : "any"}
          onChoose={(v) => show({ lasting: v === "yes" ? v : undefined })}
        />
        <OneOf
          label="must contain"
          shown={
            contains.length === 0
              ? "with whichever paints"
              : `with ${contains.map((c) => all.find((p) => p.value === c)?.name ?? c).join(", ")}`
          }
          of={[{ value: "", name: "whichever paints" }, ...all]}
          value=""
          onChoose={(v) => show(relisted("contains", v === "" ? () => [] : joined(v)))}
        />
      </Box>
      {got.error && (
        <Typography role="alert" sx={{ mt: 2 }}>
          {got.error.message}
        </Typography>
      )}
      {got.isFetching && (
        <Progress onLeave={() => void queries.cancelQueries({ queryKey: ["box", "choose"] })} />
      )}
      {!got.isFetching && !got.error && (!got.data || got.isPlaceholderData) && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 2, mt: 1 }}>
          <Typography>This was left before every system was looked at.</Typography>
          <Button size="small" color="inherit" onClick={() => void got.refetch()}>
            look at them
          </Button>
        </Box>
      )}
      {make.error && <Typography role="alert">{make.error.message}</Typography>}
      {chosen && (
        <Box sx={{ opacity: got.isPlaceholderData ? 0.5 : 1, mt: 1.5 }}>
          <Typography sx={{ color: grey.second }}>
            {said[chosen.aim]}; every system was looked at, in{" "}
            <span style={{ fontFamily: figures }}>{chosen.elapsedMs.toFixed(0)}</span> ms.
          </Typography>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 210px" },
              columnGap: 3,
              alignItems: "center",
              borderTop: `2px solid ${grey.ink}`,
            }}
          >
            <Row
              system={chosen.best}
              called={called}
              best
              onKeep={() => keep(chosen.best)}
              busy={make.isPending}
            />
            <Reach system={selectionOf(chosen.best)} view={view} />
          </Box>
          <Typography variant="caption" component="p" sx={{ mt: 2 }}>
            the runners-up: which paint each has instead, and what that loses
          </Typography>
          {chosen.runnersUp.map((s) => (
            <Row
              key={s.paints.join()}
              system={s}
              than={chosen.best}
              called={called}
              onKeep={() => keep(s)}
              busy={make.isPending}
            />
          ))}
          {chosen.runnersUp.length === 0 && (
            <Typography variant="body2">none: these paints make no other one.</Typography>
          )}
          {from === "box" && aim !== "targets" && (
            <Box
              component="section"
              aria-label="buy next"
              sx={{ mt: 3, borderTop: `2px solid ${grey.ink}`, pt: 1 }}
            >
              <Typography variant="h3">Buy next</Typography>
              {chosen.buyNext.length === 0 && (
                <Typography sx={{ color: grey.second }}>
                  No paint of the library would add a clean hue to the best system of this kind.
                </Typography>
              )}
              {chosen.buyNext.map((b) => (
                <Box
                  key={b.paint.id}
                  sx={{
                    display: "grid",
                    gridTemplateColumns: "52px minmax(0, 260px) 90px 1fr",
                    gap: 1.5,
                    alignItems: "center",
                    borderBottom: `1px solid ${grey.hairline}`,
                    py: 0.5,
                  }}
                >
                  <Both paint={b.paint} width={36} height={22} />
                  <Typography sx={{ fontWeight: 500 }}>
                    {b.paint.name}{" "}
                    <span style={{ fontFamily: figures, fontSize: 12, color: grey.third }}>
                      {b.paint.code}
                    </span>
                  </Typography>
                  <Typography sx={{ fontFamily: figures, fontSize: 13 }}>
                    {b.hues
                      ? `+${(100 * b.gain).toFixed(0)} %`
                      : `+${(100 * b.meanGain).toFixed(1)} %`}
                  </Typography>
                  <Typography variant="body2" sx={{ color: grey.second }}>
                    {b.hues
                      ? `then ${(100 * b.cleanCoverage).toFixed(0)} % of the hues are clean`
                      : `then the mean brightness is ${b.meanBrightness.toFixed(2)}, ${(100 * b.vividCoverage).toFixed(0)} % of the hues vivid`}
                    {b.alike && (
                      <>
                        ; as good as the first, as <Word of="most tubes">tubes differ</Word>
                      </>
                    )}
                  </Typography>
                </Box>
              ))}
            </Box>
          )}
        </Box>
      )}
      <Replace from={from} view={view} paints={all} called={called} />
    </Box>
  );
}

const things = {
  pairs: "pairs of paints followed",
  systems: "systems looked at",
  paints: "paints of the library tried",
  fours: "mixtures of four paints held against the wanted colours",
} as const;

/** How far the search is, once it takes longer than half a second, and the way out of it. */
function Progress({ onLeave }: { onLeave: () => void }) {
  const far = useQuery(searchingQuery).data;
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 2,
        mt: 1,
        "@keyframes late": { from: { visibility: "hidden" }, to: { visibility: "visible" } },
        animation: "late 0s 500ms both",
      }}
    >
      <Box sx={{ width: 200, height: 10, bgcolor: grey.track }}>
        <Box
          sx={{
            height: 10,
            width: far?.of && far.stage !== "queue" ? `${(100 * far.done) / far.of}%` : 0,
            bgcolor: grey.ink,
          }}
        />
      </Box>
      <Typography>
        {far?.stage === "queue" ? (
          far.done === 1 ? (
            "Two others are searched for just now; yours is the next."
          ) : (
            `Others are searched for just now; yours is number ${far.done} in line.`
          )
        ) : far?.of && far.stage ? (
          <>
            <span style={{ fontFamily: figures, fontSize: 13 }}>
              {far.done} of {far.of}
            </span>{" "}
            {things[far.stage]}
          </>
        ) : (
          "Looking…"
        )}
      </Typography>
      <Button
        size="small"
        color="inherit"
        onClick={() => {
          void endSearch();
          onLeave();
        }}
      >
        leave it
      </Button>
    </Box>
  );
}

/** What a system reaches: its ring, section by section. */
function Reach({ system, view }: { system: Selection; view: Conditions }) {
  const places = useQuery(placesQuery(0, system, view)).data;
  return (
    <Box
      role="img"
      aria-label="what the best reaches"
      sx={{ maxWidth: 210, minHeight: 210, py: 1 }}
    >
      {places && <SystemRing ways={places.sections.map((s) => s.way)} pointed={[]} />}
    </Box>
  );
}

function Row({
  system,
  than,
  called,
  best = false,
  busy,
  onKeep,
}: {
  system: Schemas["ChosenSystem"];
  /** What it is told apart from: then only the paints that differ are named. */
  than?: Schemas["ChosenSystem"];
  called: (p: { id: string; name: string }) => string;
  best?: boolean;
  busy: boolean;
  onKeep: () => void;
}) {
  const all = system.roles.flatMap((r) => r ?? []);
  const others = than?.roles.flatMap((r) => r ?? []) ?? [];
  const has = (list: typeof all, id: string) => list.some((p) => p.id === id);
  const paints = than ? all.filter((p) => !has(others, p.id)) : all;
  const gone = others.filter((p) => !has(all, p.id));
  return (
    <Box
      aria-label={best ? "the best" : "a runner-up"}
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 290px 168px" },
        gap: 2,
        alignItems: "center",
        borderTop: best ? 0 : `1px solid ${grey.hairline}`,
        py: 1,
      }}
    >
      <Box>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5 }}>
          {paints.map((p) => (
            <Box key={p.id} sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
              <Both paint={p} width={36} height={22} />
              <Typography variant={best ? "subtitle2" : "body2"}>{called(p)}</Typography>
            </Box>
          ))}
          {gone.length > 0 && (
            <Typography variant="body2" sx={{ color: grey.third }}>
              {paints.length > 0 ? "instead of " : "without "}
              {gone.map(called).join(" and ")}
            </Typography>
          )}
        </Box>
        {system.alike && (
          <Typography variant="body2" sx={{ mt: 0.5, fontWeight: 600 }}>
            as good, as <Word of="most tubes">tubes differ</Word>
          </Typography>
        )}
        {system.loses && (
          <Typography variant="body2" sx={{ color: grey.second, mt: 0.5 }}>
            {system.loses}
          </Typography>
        )}
      </Box>
      <Box>
        <Box sx={{ height: 10, bgcolor: grey.track }}>
          <Box sx={{ height: 10, width: `${100 * system.meanBrightness}%`, bgcolor: grey.ink }} />
        </Box>
        <Typography variant="caption" sx={{ fontFamily: figures }}>
          brightness {system.meanBrightness.toFixed(2)}, {(100 * system.cleanCoverage).toFixed(0)} %
          clean, {(100 * system.vividCoverage).toFixed(0)} % vivid
          {system.meanDe00 !== null &&
            `; ${system.reached} wanted reached, CIEDE2000 ${system.meanDe00.toFixed(1)}`}
          {system.price !== null && `, costs ${system.price.toFixed(2)}`}
        </Typography>
      </Box>
      <Button
        color="inherit"
        variant={best ? "outlined" : "text"}
        disabled={busy}
        onClick={onKeep}
        sx={{ whiteSpace: "nowrap" }}
      >
        make a wheel of it
      </Button>
    </Box>
  );
}
