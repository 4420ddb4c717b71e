import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type DragEvent } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, type KeptTube, type Paint, type Profile, type SystemContent, type SystemKind, type SystemPlaces } from "../api/client";
import { boxQuery, earlierQuery, keptQuery, paintsQuery, placesQuery, wheelsQuery } from "../api/queries";
import { Choice } from "../app/Choice";
import { kindWords, plainSettings } from "../app/choices";
import { Group, ViewingConditions } from "../app/Conditions";
import { KeptNotices, MissingWheel, NameField, SavedMark } from "../app/Kept";
import { paintName } from "../app/paintName";
import { PaintPicker } from "../app/PaintPicker";
import { Shell } from "../app/Shell";
import { figures, grey } from "../app/theme";
import { useKeptWheel } from "../app/useKeptWheel";
import { useUndoKey } from "../app/useUndoKey";
import { Waiting } from "../app/Waiting";
import { WheelMenu } from "../app/WheelMenu";
import { Drop, LeanArrow } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { fill } from "../drawing/screen";

export function SystemPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneSystem key={id} id={id} painter={painter} />;
}

type At = { role: number; place: number };

/** Which paint stands in which place, and which pair fills each section. */
function OneSystem({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content, change, undo } = own;
  const settings = content?.settings ?? plainSettings;
  const system = content?.system;
  const places = useQuery({ ...placesQuery(id, system ?? { kind: "triad", roles: [], chosen: [], riders: {}, note: "" }, settings), enabled: !!system });
  const box = useQuery(boxQuery(settings));
  const paints = useQuery(paintsQuery(settings));
  const [at, setAt] = useState<At>({ role: 0, place: 0 });
  const navigate = useNavigate();
  const queries = useQueryClient();
  const duplicate = useMutation({
    mutationFn: () => answer(client.POST("/api/wheels", { body: { ...content!, name: `${content!.name}, again`.slice(0, 80) } })),
    onSuccess: (w) => {
      queries.setQueryData(keptQuery(w.id).queryKey, w);
      void queries.invalidateQueries(wheelsQuery);
      void navigate(`/system/${w.id}`);
    },
  });
  useUndoKey(undo);
  if (own.query.error && !own.kept) return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content || !system) return <Waiting failing={own.query.failureCount > 0} />;

  const setSystem = (next: Partial<SystemContent>) => change({ ...content, system: { ...system, ...next } });
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
  const setKind = (kind: SystemKind) => {
    const most = kind === "split" ? 2 : kind === "double" || kind === "own" ? 4 : 1;
    const next = system.roles.map((r) => r.slice(0, most));
    setSystem({ kind, roles: next, chosen: [[], [], []] });
  };
  const got = places.data;
  return (
    <Shell
      painter={painter}
      conditions={
        <>
          <Group>
            <WheelMenu name={content.name} current={id} place="system" />
          </Group>
          <ViewingConditions view={settings} onSet={(v) => change({ ...content, settings: { ...settings, ...v } })} />
        </>
      }
      notice={<KeptNotices own={own} />}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 348px" }, columnGap: 2 }}>
        <Box sx={{ height: { md: "calc(100vh - 116px)" }, overflowY: { md: "auto" }, pr: 1 }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2 }}>
            <Box sx={{ flex: 1, minWidth: 0, maxWidth: 420 }}>
              <NameField name={content.name} onRename={(name) => change({ ...content, name })} />
            </Box>
            <Box sx={{ display: "flex", alignItems: "flex-start" }}>
              <Button color="inherit" component={To} to={`/wheel/${id}`} sx={{ fontWeight: 600 }}>
                see the wheel
              </Button>
              <Button color="inherit" onClick={() => duplicate.mutate()}>
                duplicate
              </Button>
              <Button color="inherit" onClick={() => change({ ...content, archived: !content.archived })}>
                {content.archived ? "take back" : "archive"}
              </Button>
              <SavedMark own={own} />
            </Box>
          </Box>
          <Box role="radiogroup" aria-label="kind of system" sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.75 }}>
            {(Object.keys(kindWords) as SystemKind[]).map((kind) => (
              <Button
                key={kind}
                role="radio"
                aria-checked={kind === system.kind}
                color="inherit"
                onClick={() => setKind(kind)}
                sx={{ px: 0, minWidth: 0, fontSize: 14, fontWeight: kind === system.kind ? 600 : 400, color: kind === system.kind ? grey.ink : grey.third, borderBottom: `2px solid ${kind === system.kind ? grey.ink : "transparent"}` }}
              >
                {kindWords[kind].name}
              </Button>
            ))}
          </Box>
          <Typography sx={{ color: grey.second, mb: 1 }}>
            {kindWords[system.kind].what}.
            {got?.wrong && <b> {got.wrong}.</b>}
          </Typography>
          {got && (
            <Places
              places={got}
              at={at}
              onAt={setAt}
              onPut={put}
              onTake={take}
              onChoose={(k, pair) => setSystem({ chosen: system.chosen.map((c, i) => (i === k ? pair : c)) })}
            />
          )}
          <BoxRow tubes={box.data?.tubes ?? []} taken={system.roles.flat()} onPick={(ref) => put(at, ref)} />
          <Riders system={system} tubes={box.data?.tubes ?? []} paints={paints.data ?? []} onSet={(riders) => setSystem({ riders: { ...system.riders, ...riders } })} />
          <Note note={system.note} onNote={(note) => setSystem({ note })} />
          <Earlier id={id} version={own.kept?.version ?? 0} onTake={(s) => setSystem(s)} />
        </Box>
        <Box sx={{ borderLeft: { md: `1px solid ${grey.hairline}` }, pl: { md: 2 }, pt: { xs: 2, md: 0 }, height: { md: "calc(100vh - 116px)" }, overflowY: { md: "auto" } }}>
          {got && <PlaceCard key={`${at.role} ${at.place}`} places={got} at={at} paints={paints.data ?? []} onPut={(ref) => put(at, ref)} onTake={() => take(at)} />}
        </Box>
      </Box>
    </Shell>
  );
}

/** A chosen pair stays as long as both its paints do. */
function keepChosen(system: SystemContent, roles: string[][]): string[][] {
  return system.chosen.map((pair, k) => (pair.length === 2 && roles[k]?.includes(pair[0]!) && roles[(k + 1) % 3]?.includes(pair[1]!) ? pair : []));
}

/** Carries a paint's reference while it is dragged. */
const dragged = "application/x-paint";

/** The three roles round a small wheel, their places, and what fills the sections between. */
function Places({ places, at, onAt, onPut, onTake, onChoose }: {
  places: SystemPlaces;
  at: At;
  onAt: (at: At) => void;
  onPut: (at: At, ref: string) => void;
  onTake: (at: At) => void;
  onChoose: (section: number, pair: string[]) => void;
}) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, minmax(0, 1fr))", columnGap: 2, rowGap: 1 }}>
      {places.roles.map((r, role) => (
        <Box key={r.role} sx={{ borderTop: `2px solid ${grey.ink}`, pt: 0.75 }}>
          <Typography variant="h3" sx={{ "&::first-letter": { textTransform: "uppercase" } }}>
            {r.role}
          </Typography>
          <Box role="listbox" aria-label={`places of the ${r.role}`}>
            {r.places.map((p, place) => (
              <PlaceMark key={place} place={p} chosen={at.role === role && at.place === place} onChoose={() => onAt({ role, place })} onDrop={(ref) => onPut({ role, place }, ref)} onTake={() => onTake({ role, place })} />
            ))}
            {r.places.length < r.most && r.places.every((p) => p.paint) && (
              <Button color="inherit" size="small" onClick={() => onAt({ role, place: r.places.length })} sx={{ px: 0.5, fontWeight: at.role === role && at.place === r.places.length ? 600 : 400 }}>
                one more {r.role}
              </Button>
            )}
          </Box>
        </Box>
      ))}
      {places.sections.map((s, k) => (
        <Box key={s.name} aria-label={`section: ${s.name}`} sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 0.75, display: "flex", alignItems: "baseline", gap: 1, flexWrap: "wrap" }}>
          {s.verdict && s.verdict !== "neutral" && <Drop verdict={s.verdict as "clean"} height={14} />}
          <Typography variant="subtitle2">{s.name}</Typography>
          {s.from ? (
            (s.pairings?.length ?? 0) > 1 ? (
              <Choice label={`pair for ${s.name}`} bold={false} shown={<span>{`${nameOfRef(places, s.from)} with ${nameOfRef(places, s.to ?? "")}${s.chosen ? ", chosen" : ", brightest"}`}</span>}>
                {(close) => [
                  ...(s.pairings ?? []).map((pair) => (
                    <MenuItem
                      key={pair}
                      onClick={() => {
                        close();
                        onChoose(k, pair.split(" "));
                      }}
                    >
                      {pair.split(" ").map((ref) => nameOfRef(places, ref)).join(" with ")}
                    </MenuItem>
                  )),
                  <MenuItem
                    key="brightest"
                    onClick={() => {
                      close();
                      onChoose(k, []);
                    }}
                  >
                    whichever is brightest
                  </MenuItem>,
                ]}
              </Choice>
            ) : (
              <Typography variant="body2" component="span">
                {nameOfRef(places, s.from)} with {nameOfRef(places, s.to ?? "")}
              </Typography>
            )
          ) : (
            <Typography variant="body2" component="span" sx={{ color: grey.third }}>
              empty: a role is missing
            </Typography>
          )}
        </Box>
      ))}
    </Box>
  );
}

function nameOfRef(places: SystemPlaces, ref: string): string {
  for (const r of places.roles) {
    for (const p of r.places) {
      if (p.ref === ref && p.paint) return p.paint.ci && !p.paint.ci.includes(",") ? p.paint.ci : p.paint.name;
    }
  }
  return ref;
}

function PlaceMark({ place, chosen, onChoose, onDrop, onTake }: {
  place: SystemPlaces["roles"][number]["places"][number];
  chosen: boolean;
  onChoose: () => void;
  onDrop: (ref: string) => void;
  onTake: () => void;
}) {
  const [over, setOver] = useState(false);
  const p = place.paint;
  return (
    <Box
      role="option"
      aria-selected={chosen}
      aria-label={p ? `${p.ci} ${p.name}${place.warning ? `, ${place.warning}` : ""}` : `empty place${place.want ? `, wants a lean to ${place.want}` : ""}`}
      tabIndex={0}
      draggable={!!p}
      onDragStart={(e: DragEvent) => place.ref && e.dataTransfer.setData(dragged, place.ref)}
      onDragOver={(e: DragEvent) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e: DragEvent) => {
        e.preventDefault();
        setOver(false);
        const ref = e.dataTransfer.getData(dragged);
        if (ref) onDrop(ref);
      }}
      onClick={onChoose}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onChoose();
        } else if (e.key === "Delete" || e.key === "Backspace") {
          onTake();
        }
      }}
      sx={{ minHeight: 74, p: 0.75, mb: 0.75, cursor: "pointer", border: `${chosen ? 2 : 1}px ${p ? "solid" : "dashed"} ${chosen || over ? grey.ink : grey.hairline}` }}
    >
      {p ? (
        <>
          <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
            <PaintStrip paint={p} width={72} height={34} />
            <Box sx={{ minWidth: 0 }}>
              <Typography variant="body2" sx={{ fontWeight: 500, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
                {p.name}
              </Typography>
              <Typography variant="caption" sx={{ fontFamily: figures }}>
                {p.ci}
              </Typography>
            </Box>
          </Box>
          {p.lean && (
            <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, mt: 0.5 }}>
              <LeanArrow degrees={p.lean.degrees} centred={p.lean.toward === "centred"} />
              <Typography variant="caption" sx={{ color: grey.ink }}>
                {p.lean.toward === "centred" ? "centred" : `to ${p.lean.toward} ${Math.abs(p.lean.degrees).toFixed(0)}°`}
              </Typography>
            </Box>
          )}
          {place.warning && (
            <Typography variant="caption" component="p" sx={{ color: grey.ink, borderLeft: `3px solid ${grey.ink}`, pl: 0.75, mt: 0.5 }}>
              {place.warning}
            </Typography>
          )}
        </>
      ) : (
        <Typography variant="body2" sx={{ color: grey.third, pt: 2, textAlign: "center" }}>
          {place.want === "centred" ? "any, best centred" : place.want ? `one that leans to ${place.want}` : "empty"}
        </Typography>
      )}
    </Box>
  );
}

/** What could stand in the place that is chosen. */
function PlaceCard({ places, at, paints, onPut, onTake }: { places: SystemPlaces; at: At; paints: Paint[]; onPut: (ref: string) => void; onTake: () => void }) {
  const role = places.roles[at.role]!;
  const place = role.places[at.place];
  const substitutes = place?.substitutes ?? role.places[0]?.substitutes ?? [];
  const [whole, setWhole] = useState(false);
  if (whole) {
    return (
      <Box sx={{ height: { xs: 560, md: 1 } }}>
        <PaintPicker role={role.role} paints={paints} present={place?.ref} taken={[]} onClose={() => setWhole(false)} onPick={(p) => onPut(p.id)} />
      </Box>
    );
  }
  const groups = [
    { title: "from your box", list: substitutes.filter((s) => s.inBox) },
    { title: "from the library", list: substitutes.filter((s) => !s.inBox) },
  ];
  return (
    <Box component="section" aria-label="substitutes">
      <Typography variant="h2">{place?.paint ? `Instead of it` : `Which ${role.role}?`}</Typography>
      <Typography sx={{ color: grey.second }}>
        {place?.want && place.want !== "centred" ? `This place wants one that leans to ${place.want}. ` : ""}The best first: by role, lean, strength, hiding and price.
      </Typography>
      {groups.map((g) => (
        <Box key={g.title} sx={{ mt: 1.5 }}>
          <Typography variant="caption">{g.title}</Typography>
          {g.list.length === 0 && <Typography variant="body2">none that belongs here</Typography>}
          {g.list.map((s) => (
            <Box
              key={s.ref}
              component="button"
              draggable
              onDragStart={(e: DragEvent) => e.dataTransfer.setData(dragged, s.ref)}
              onClick={() => onPut(s.ref)}
              aria-label={`put ${s.ci} ${s.name}`}
              sx={{ display: "flex", width: 1, alignItems: "center", gap: 1, border: 0, borderTop: `1px solid ${grey.hairline}`, bgcolor: "transparent", color: grey.ink, font: "inherit", textAlign: "left", minHeight: 44, cursor: "pointer", "&:hover": { bgcolor: grey.track } }}
            >
              <svg width={28} height={28} aria-hidden>
                <rect width={28} height={28} fill={fill(s.shown)} />
              </svg>
              <Box component="span" sx={{ flex: 1, minWidth: 0, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap", fontSize: 14 }}>
                {s.name}{" "}
                <Box component="span" sx={{ fontFamily: figures, fontSize: 12, color: grey.third }}>
                  {s.ci}
                </Box>
              </Box>
              {s.lean && (
                <Box component="span" sx={{ fontSize: 12, whiteSpace: "nowrap" }}>
                  {s.lean.toward === "centred" ? "centred" : `to ${s.lean.toward} ${Math.abs(s.lean.degrees).toFixed(0)}°`}
                </Box>
              )}
            </Box>
          ))}
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
        <Button variant="outlined" onClick={() => setWhole(true)}>
          the whole library
        </Button>
        {place?.paint && (
          <Button color="inherit" onClick={onTake}>
            take it out
          </Button>
        )}
      </Box>
    </Box>
  );
}

/** The box, to drag from or to put into the chosen place. */
function BoxRow({ tubes, taken, onPick }: { tubes: KeptTube[]; taken: string[]; onPick: (ref: string) => void }) {
  if (tubes.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="caption">your box: drag a paint to a place, or press it for the chosen one</Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: "4px" }}>
        {tubes.map((t) => {
          const name = t.content.nickname || t.paint.name;
          return (
            <Box
              key={t.id}
              component="button"
              draggable
              onDragStart={(e: DragEvent) => e.dataTransfer.setData(dragged, t.paint.id)}
              onClick={() => onPick(t.paint.id)}
              aria-label={`put ${name} in the place`}
              title={`${t.paint.ci} ${name}`}
              sx={{ p: 0, border: `2px solid ${taken.includes(t.paint.id) ? grey.ink : "transparent"}`, bgcolor: "transparent", cursor: "grab", lineHeight: 0 }}
            >
              <PaintStrip paint={t.paint} width={44} height={28} />
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const riders = { white: "white", black: "black", blueGrey: "dark blue-grey", convenience: "other paint" } as const;
type Rider = keyof typeof riders;

/** What rides along without being a primary. */
function Riders({ system, tubes, paints, onSet }: { system: SystemContent; tubes: KeptTube[]; paints: Paint[]; onSet: (r: Partial<Record<Rider, string>>) => void }) {
  const offered = (r: Rider) => {
    const fits = (p: Paint) => (r === "white" ? p.family === "white" : r === "black" ? p.family === "black" : r === "blueGrey" ? p.id === "blue-grey" || p.family === "black" : p.family !== "white" && p.family !== "black");
    const boxed = tubes.filter((t) => fits(t.paint)).map((t) => ({ ref: t.paint.id, name: t.content.nickname || t.paint.name }));
    return [...boxed, ...paints.filter(fits).map((p) => ({ ref: p.id, name: paintName(p.name).name }))];
  };
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2.5, alignItems: "baseline", mt: 1.5 }}>
      <Typography variant="caption">riding along</Typography>
      {(Object.keys(riders) as Rider[]).map((r) => {
        const list = offered(r);
        const now = system.riders[r];
        return (
          <Choice key={r} label={`rider: ${riders[r]}`} bold={false} shown={<span>{now ? (list.find((o) => o.ref === now)?.name ?? now) : `no ${riders[r]}`}</span>}>
            {(close) =>
              [{ ref: "", name: `no ${riders[r]}` }, ...list].map((o) => (
                <MenuItem
                  key={o.ref}
                  selected={o.ref === (now ?? "")}
                  onClick={() => {
                    close();
                    onSet({ [r]: o.ref });
                  }}
                >
                  {o.name}
                </MenuItem>
              ))
            }
          </Choice>
        );
      })}
    </Box>
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
      sx={{ fontSize: 14, mt: 1, borderBottom: `1px solid ${grey.hairline}`, "& textarea::placeholder": { color: grey.third, opacity: 1 } }}
    />
  );
}

/** The versions the system has been through; each wheel kept its paints. */
function Earlier({ id, version, onTake }: { id: number; version: number; onTake: (s: SystemContent) => void }) {
  const [open, setOpen] = useState(false);
  const earlier = useQuery({ ...earlierQuery(id), queryKey: [...earlierQuery(id).queryKey, version], enabled: open });
  return (
    <Box sx={{ mt: 1 }}>
      <Button color="inherit" size="small" onClick={() => setOpen(!open)} sx={{ px: 0 }}>
        {open ? "hide earlier versions" : "earlier versions"}
      </Button>
      {open &&
        earlier.data?.map((v) => (
          <Box key={v.version} sx={{ display: "flex", alignItems: "center", gap: 2, borderTop: `1px solid ${grey.hairline}`, minHeight: 36 }}>
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
