import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, type Profile, type Selection, type SystemKind } from "../api/client";
import {
  boxQuery,
  earlierQuery,
  insteadQuery,
  keptQuery,
  paintsQuery,
  placesQuery,
  wheelsQuery,
} from "../api/queries";
import { AskFirst } from "../parts/AskFirst";
import { kindWords, plainSettings } from "../parts/choices";
import { OneOf } from "../parts/Choice";
import { KeptShell, MissingWheel, NameField, SavedMark } from "../app/Kept";
import { figures, grey, placeHeight } from "../drawing/style";
import { useKeptWheel } from "../parts/useKeptWheel";
import { useUndoKey } from "../parts/useUndoKey";
import { Waiting } from "../parts/Waiting";
import { BoxRow, Riders } from "./Alongside";
import { type At } from "./drag";
import { PlaceCard } from "./PlaceCard";
import { Places } from "./Places";

const empty: Selection = { kind: "triad", roles: [], chosen: [], riders: {}, note: "" };

export function SystemPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneSystem key={id} id={id} painter={painter} />;
}

/** Which paint stands in which place, and which pair fills each section. */
function OneSystem({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content, change, undo } = own;
  const settings = content?.settings ?? plainSettings;
  const system = content?.system;
  const places = useQuery({
    ...placesQuery(id, system ?? empty, settings),
    enabled: !!system,
  });
  const [at, setAt] = useState<At>({ role: 0, place: 0 });
  const [pointed, setPointed] = useState<string | null>(null);
  const instead = useQuery({
    ...insteadQuery(id, system ?? empty, settings, at),
    enabled: !!system,
  });
  const box = useQuery(boxQuery(settings));
  const paints = useQuery(paintsQuery(settings));
  const [deleting, setDeleting] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const duplicate = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/wheels", {
          body: { ...content!, name: `${content!.name}, again`.slice(0, 80) },
        }),
      ),
    onSuccess: (w) => {
      queries.setQueryData(keptQuery(w.id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
      void navigate(`/system/${w.id}`);
    },
  });
  useUndoKey(undo);
  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content || !system) return <Waiting failing={own.query.failureCount > 0} />;

  const setSystem = (next: Partial<Selection>) =>
    change({ ...content, system: { ...system, ...next } });
  const put = ({ role, place }: At, ref: string) => {
    const next = system.roles.map((r) => [...r]);
    // A paint plays one role, but in an own system.
    if (system.kind !== "own") {
      for (const r of next) {
        const there = r.indexOf(ref);
        if (there >= 0) {
          const displaced = next[role]![place];
          if (displaced && displaced !== ref) r[there] = displaced;
          else r.splice(there, 1);
        }
      }
    }
    const into = next[role]!;
    if (place < into.length) into[place] = ref;
    else into.push(ref);
    setSystem({ roles: next.map((r) => [...new Set(r)]), chosen: keepChosen(system, next) });
  };
  const take = ({ role, place }: At) => {
    const next = system.roles.map((r, k) => (k === role ? r.filter((_, i) => i !== place) : r));
    setSystem({ roles: next, chosen: keepChosen(system, next) });
  };
  const got = places.data;
  const setKind = (kind: SystemKind) =>
    setSystem({
      kind,
      roles: system.roles.map((r) => r.slice(0, got?.most[kind])),
      chosen: [[], [], []],
    });
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="system">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 348px" },
          columnGap: 2,
        }}
      >
        <Box sx={{ height: { md: placeHeight }, overflowY: { md: "auto" }, pr: 1 }}>
          <Box
            sx={{
              display: "flex",
              flexWrap: "wrap",
              justifyContent: "space-between",
              columnGap: 2,
            }}
          >
            <Box sx={{ flex: "1 1 240px", minWidth: 0, maxWidth: 420 }}>
              <NameField name={content.name} onRename={(name) => change({ ...content, name })} />
            </Box>
            <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "flex-start" }}>
              <Button variant="contained" component={To} to={`/wheel/${id}`}>
                see the wheel
              </Button>
              <Button color="inherit" onClick={() => duplicate.mutate()}>
                duplicate
              </Button>
              <Button
                color="inherit"
                onClick={() => change({ ...content, archived: !content.archived })}
              >
                {content.archived ? "take back" : "archive"}
              </Button>
              <Button color="inherit" onClick={() => setDeleting(true)}>
                delete
              </Button>
              {deleting && (
                <AskFirst
                  title={`Delete ${content.name}?`}
                  yes="delete it"
                  onNo={() => setDeleting(false)}
                  onYes={async () => {
                    await answer(client.DELETE("/api/wheels/{id}", { params: { path: { id } } }));
                    queries.setQueryData(wheelsQuery.queryKey, (all) =>
                      all?.filter((w) => w.id !== id),
                    );
                    await navigate("/");
                    await queries.invalidateQueries();
                  }}
                >
                  <Typography>
                    The wheel and its system go with all of their versions, and cannot be taken
                    back. Sittings of it stay in the log, as they were painted. To put it out of
                    sight only, archive it.
                  </Typography>
                </AskFirst>
              )}
              <SavedMark own={own} />
            </Box>
          </Box>
          <OneOf
            label="kind of system:"
            bold
            shown={kindWords[system.kind].name}
            of={(Object.keys(kindWords) as SystemKind[]).map((kind) => ({
              value: kind,
              name: `${kindWords[kind].name}: ${kindWords[kind].what}`,
            }))}
            value={system.kind}
            onChoose={setKind}
            ready={!!got}
          />
          <Typography sx={{ color: grey.second, mb: 1 }}>
            {kindWords[system.kind].what}.{got?.wrong && <b> {got.wrong}.</b>}
            {system.kind !== "own" && (
              <>
                {" "}
                <To
                  to={`/compare?show=choose&kind=${system.kind === "split" || system.kind === "double" ? system.kind : "triad"}`}
                >
                  Choose the best one from my box
                </To>
                .
              </>
            )}
          </Typography>
          {got && (
            <Places
              places={got}
              at={at}
              pointed={instead.data?.find((i) => i.ref === pointed)?.ways ?? []}
              onAt={(to) => {
                setAt(to);
                setPointed(null);
              }}
              onPut={put}
              onTake={take}
              onChoose={(k, pair) =>
                setSystem({ chosen: system.chosen.map((c, i) => (i === k ? pair : c)) })
              }
            />
          )}
          <BoxRow
            tubes={box.data?.tubes ?? []}
            taken={system.roles.flat()}
            onPick={(ref) => put(at, ref)}
          />
          {got && (
            <Riders
              offers={got.riders}
              riding={system.riders}
              onSet={(riders) => setSystem({ riders: { ...system.riders, ...riders } })}
            />
          )}
          <Note note={system.note} onNote={(note) => setSystem({ note })} />
          <Earlier id={id} version={own.kept?.version ?? 0} onTake={(s) => setSystem(s)} />
        </Box>
        <Box
          sx={{
            borderLeft: { md: `1px solid ${grey.hairline}` },
            pl: { md: 2 },
            pt: { xs: 2, md: 0 },
            height: { md: placeHeight },
            overflowY: { md: "auto" },
          }}
        >
          {got && (
            <PlaceCard
              key={`${at.role} ${at.place}`}
              places={got}
              at={at}
              paints={paints.data ?? []}
              instead={instead.data ?? []}
              onPoint={setPointed}
              onPut={(ref) => put(at, ref)}
              onTake={() => take(at)}
            />
          )}
        </Box>
      </Box>
    </KeptShell>
  );
}

/** A chosen pair stays as long as both its paints do. */
function keepChosen(system: Selection, roles: string[][]): string[][] {
  return system.chosen.map((pair, k) =>
    pair.length === 2 && roles[k]?.includes(pair[0]!) && roles[(k + 1) % 3]?.includes(pair[1]!)
      ? pair
      : [],
  );
}

function Note({ note, onNote }: { note: string; onNote: (n: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  return (
    <InputBase
      value={draft ?? note}
      placeholder="a note to this system"
      multiline
      maxRows={3}
      fullWidth
      onFocus={() => setDraft(note)}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={() => {
        if (draft !== null && draft.trim() !== note) onNote(draft.trim());
        setDraft(null);
      }}
      slotProps={{ input: { "aria-label": "note to the system", maxLength: 1000 } }}
      sx={{
        fontSize: 14,
        mt: 1,
        borderBottom: `1px solid ${grey.hairline}`,
        "& textarea::placeholder": { color: grey.third, opacity: 1 },
      }}
    />
  );
}

/** The versions the system has been through; each wheel kept its paints. */
function Earlier({
  id,
  version,
  onTake,
}: {
  id: number;
  version: number;
  onTake: (s: Selection) => void;
}) {
  const [open, setOpen] = useState(false);
  const earlier = useQuery({
    ...earlierQuery(id),
    queryKey: [...earlierQuery(id).queryKey, version],
    enabled: open,
  });
  return (
    <Box sx={{ mt: 1 }}>
      <Button color="inherit" size="small" onClick={() => setOpen(!open)} sx={{ px: 0 }}>
        {open ? "hide earlier versions" : "earlier versions"}
      </Button>
      {open &&
        earlier.data?.map((v) => (
          <Box
            key={v.version}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 2,
              borderTop: `1px solid ${grey.hairline}`,
              minHeight: 36,
            }}
          >
            <Typography variant="caption" sx={{ fontFamily: figures, width: 28 }}>
              {v.version}
            </Typography>
            <Typography variant="body2" sx={{ flex: 1 }}>
              {kindWords[v.system.kind].name}: {v.system.roles.flat().join(", ")}
            </Typography>
            <Button size="small" color="inherit" onClick={() => onTake(v.system)}>
              take these paints
            </Button>
          </Box>
        ))}
    </Box>
  );
}
