import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Link from "@mui/material/Link";
import type { Theme } from "@mui/material/styles";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { Link as To } from "react-router";
import { answer, client, type KeptTube, type Profile } from "../api/client";
import { sessionQuery } from "../api/queries";
import { nameOf } from "../parts/naming";
import { Shell } from "../app/Shell";
import { Notice } from "../app/Notice";
import { grey, placeHeight } from "../drawing/style";
import { useUndoKey } from "../parts/useUndoKey";
import { Waiting } from "../parts/Waiting";
import { Setting } from "../parts/Choice";
import { CardFromBelow } from "../parts/CardFromBelow";
import { showItAt } from "../parts/showing";
import { usePhone } from "../parts/usePhone";
import { Tabs } from "../parts/Tabs";
import { Tick } from "../parts/Tick";
import { Drop, HidingMark, StrengthMark } from "../drawing/Marks";
import { AddPanel } from "./AddPanel";
import { BesidePanel } from "./BesidePanel";
import { CarePanel } from "./CarePanel";
import { EmptyBox } from "./EmptyBox";
import { FilesPanel } from "./FilesPanel";
import { Leans } from "./Leans";
import { Strips } from "./Strips";
import { TubeCard } from "./TubeCard";
import { useView } from "../parts/useView";
import { AtHand } from "../parts/holding";
import { useBox, type OwnBox } from "./useBox";
import { countWords, familyWords } from "./words";

const ages = { fresh: "fresh", old: "old, mixed" };
const layouts = { strips: "strips", leans: "leans" } as const;
const sorts = { hue: "hue", lightness: "lightness", strength: "strength", price: "price" } as const;
type Sort = keyof typeof sorts;

/** The painter's own paints, and how each leans. */
export function BoxPlace({ painter }: { painter: Profile }) {
  const { phone } = usePhone();
  const { view, search, show } = useView();
  const own = useBox(view);
  const queries = useQueryClient();
  const { undo } = own;
  useUndoKey(undo);
  // On a narrow page what was opened stands below the strips: go there.
  const panelBox = useRef<HTMLDivElement>(null);
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const opened = `${search.get("panel")} ${search.get("tube")} ${search.get("beside") === "?" ? "" : search.get("beside")}`;
  const [first] = useState(opened);
  useEffect(() => {
    if (narrow && opened !== first) panelBox.current?.scrollIntoView({ block: "start" });
  }, [narrow, opened, first]);
  const box = own.box;
  if (!box) return <Waiting failing={own.query.failureCount > 0} />;

  const every = [...box.tubes, ...box.archived];
  const find = (name: string) => every.find((t) => String(t.id) === search.get(name));
  const panel = search.get("panel");
  const chosen = find("tube");
  const second = find("beside");
  const holding = search.get("beside") === "?";
  const layout = search.get("view") === "leans" ? "leans" : "strips";
  const sort: Sort = (search.get("sort") ?? "") in sorts ? (search.get("sort") as Sort) : "hue";
  const words = (search.get("q") ?? "").toLowerCase().split(/\s+/).filter(Boolean);
  const family = search.get("family");
  const safe = search.get("safe") === "yes";
  const fits = (t: KeptTube) =>
    (!family || t.paint.family === family) &&
    (!safe || t.paint.studentSafe) &&
    words.every((w) =>
      `${t.paint.ci} ${t.paint.name} ${t.content.nickname} ${t.paint.family} ${t.content.note} ${t.paint.lean ? `leans to ${t.paint.lean.toward}` : ""} ${t.paint.hiding} ${t.content.grade}`
        .toLowerCase()
        .includes(w),
    );
  const shown = sorted(box.tubes.filter(fits), sort);
  const archived = box.archived.filter(fits);
  const filtered = words.length > 0 || family || safe;

  const choose = (t: KeptTube) => {
    if (holding && chosen && chosen.id !== t.id) show({ beside: String(t.id), panel: undefined });
    else show({ tube: String(t.id), panel: undefined, beside: undefined });
  };
  /** Shows the first tube that comes into the box by something. */
  const showAdded = async (adding: ReturnType<typeof own.add>) => {
    const before = new Set(every.map((t) => t.id));
    const now = await adding;
    const first = now?.tubes.find((t) => !before.has(t.id));
    if (first)
      show({
        panel: undefined,
        tube: String(first.id),
        beside: undefined,
        q: undefined,
        family: undefined,
      });
  };
  const addPaints = (ids: string[]) => showAdded(own.add(ids));
  const setSchool = async (warmBlue: Profile["warmBlue"]) => {
    await answer(client.PUT("/api/session/school", { body: { warmBlue } }));
    void queries.invalidateQueries(sessionQuery);
    own.look();
  };

  /** How much tubes differ from the library's: all that is said of how sure it is follows. */
  const setAge = async (old: boolean) => {
    await answer(client.PUT("/api/session/box-age", { body: { old } }));
    void queries.invalidateQueries();
  };

  let side: ReactNode;
  if (panel === "add") {
    side = (
      <AddPanel
        view={view}
        tubes={box.tubes}
        studentSafe={safe}
        onAdd={(ids) => void addPaints(ids)}
        onAddByLook={(paint) => void showAdded(own.addByLook(paint))}
        onName={(words) => void showAdded(own.addNamed([words]))}
        onClose={() => show({ panel: undefined })}
      />
    );
  } else if (panel === "care") {
    side = <CarePanel box={box} onClose={() => show({ panel: undefined })} />;
  } else if (panel === "files") {
    side = (
      <FilesPanel
        show={showItAt(view, "box")}
        onBrought={() => {
          own.look();
          show({ panel: undefined });
        }}
        onClose={() => show({ panel: undefined })}
      />
    );
  } else if (chosen && second) {
    side = (
      <BesidePanel view={view} a={chosen} b={second} onEnd={() => show({ beside: undefined })} />
    );
  } else if (chosen) {
    side = (
      <>
        {holding && (
          <Typography
            role="status"
            sx={{ fontWeight: 500, borderLeft: `3px solid ${grey.ink}`, pl: 1, mb: 1.5 }}
          >
            Now choose the paint to hold beside {nameOf(chosen)}.{" "}
            <Button size="small" color="inherit" onClick={() => show({ beside: undefined })}>
              leave it
            </Button>
          </Typography>
        )}
        <TubeCard
          key={chosen.id}
          tube={chosen}
          view={view}
          cautionNotice={box.cautionNotice}
          onChange={(c) => own.change(chosen, c)}
          onBeside={() => show({ beside: "?" })}
          onSettle={(paints) => void showAdded(own.settle(chosen, paints))}
        />
      </>
    );
  } else if (box.tubes.length > 0) {
    side = <Legend />;
  }

  // On a phone it comes up from below, but where another paint is to be chosen.
  const lifted = phone && (!!panel || !!chosen) && !holding;

  const opener = (name: string, label: string) => (
    <Button
      color="inherit"
      aria-pressed={panel === name}
      onClick={() => show({ panel: panel === name ? undefined : name, beside: undefined })}
      sx={{
        px: 1,
        minWidth: { xs: 48, md: 0 },
        fontWeight: panel === name ? 600 : 500,
        bgcolor: panel === name ? grey.track : undefined,
      }}
    >
      {label}
    </Button>
  );

  return (
    <Shell
      painter={painter}
      title="Box"
      viewed={{ view: view, onSet: (v) => show(v) }}
      notice={<Notices own={own} every={every} />}
    >
      <AtHand
        things={[
          chosen && {
            name: nameOf(chosen),
            view,
            row: { places: [{ name: nameOf(chosen), parts: [`tube-${chosen.id}=1`] }] },
          },
        ]}
      />
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            md: side ? "minmax(0, 1fr) 348px" : "minmax(0, 1fr)",
          },
          columnGap: 2,
        }}
      >
        <Box
          sx={{
            height: { md: placeHeight },
            overflowY: { md: "auto" },
            px: "4px",
            ml: "-4px",
          }}
        >
          <Box
            sx={{
              display: "flex",
              flexWrap: "wrap",
              alignItems: "baseline",
              columnGap: 2,
              justifyContent: "space-between",
            }}
          >
            <Typography variant="h2">
              {box.tubes.length === 0 ? "Your box" : countWords(box.tubes.length)}
            </Typography>
            <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap" }}>
              {opener("add", "add paints")}
              <Button
                color="inherit"
                component={To}
                to="/box/new"
                sx={{ px: 1, minWidth: { xs: 48, md: 0 } }}
              >
                make a paint
              </Button>
              <Button
                color="inherit"
                component={To}
                to="/box/paper"
                sx={{ px: 1, minWidth: { xs: 48, md: 0 } }}
              >
                on paper
              </Button>
              {opener("files", "files")}
              {opener("care", "cautions")}
              <Button
                color="inherit"
                disabled={!own.canUndo}
                onClick={own.undo}
                title={box.undo ? `takes back: ${box.undo.summary}` : undefined}
                sx={{ px: 1, minWidth: { xs: 48, md: 0 } }}
              >
                undo
              </Button>
              <Typography variant="caption" role="status" sx={{ ml: 0.5, minWidth: 44 }}>
                {own.saved ? "saved" : own.waiting ? "not saved yet" : "saving"}
              </Typography>
            </Box>
          </Box>
          {box.tubes.length === 0 && box.archived.length === 0 ? (
            <EmptyBox
              sets={box.sets}
              onAdd={(ids) => void addPaints(ids)}
              onPick={() => show({ panel: "add" })}
            />
          ) : (
            <>
              <Box
                sx={{
                  display: "flex",
                  flexWrap: "wrap",
                  alignItems: "center",
                  columnGap: 2.5,
                  mb: 0.5,
                }}
              >
                <InputBase
                  placeholder="search the box"
                  value={search.get("q") ?? ""}
                  onChange={(e) => show({ q: e.target.value || undefined })}
                  slotProps={{ input: { "aria-label": "search the box", maxLength: 60 } }}
                  sx={{
                    width: 150,
                    fontSize: 15,
                    borderBottom: `1px solid ${grey.mark}`,
                    "&.Mui-focused": { borderBottomColor: grey.ink },
                    "& input::placeholder": { color: grey.third, opacity: 1 },
                  }}
                />
                <Tabs
                  label="shown as"
                  words={layouts}
                  value={layout}
                  onChoose={(v) => show({ view: v === "strips" ? undefined : v })}
                />
                {layout === "strips" && (
                  <Labelled label="by">
                    <Setting
                      label="sorted by"
                      words={sorts}
                      value={sort}
                      onChoose={(s) => show({ sort: s === "hue" ? undefined : s })}
                    />
                  </Labelled>
                )}
                {layout === "strips" && (
                  <Families
                    tubes={box.tubes}
                    family={family}
                    onChoose={(f) => show({ family: f })}
                  />
                )}
                <Tick
                  words="student-safe only"
                  on={safe}
                  onSet={(on) => show({ safe: on ? "yes" : undefined })}
                />
                <Labelled label="tubes">
                  <Setting
                    label="the tubes are"
                    words={ages}
                    value={painter.oldBox ? "old" : "fresh"}
                    onChoose={(age) => void setAge(age === "old")}
                  />
                </Labelled>
              </Box>
              {shown.length === 0 && filtered && (
                <Typography sx={{ my: 3 }}>
                  No paint of the box is like that.{" "}
                  <Button
                    color="inherit"
                    onClick={() => show({ q: undefined, family: undefined, safe: undefined })}
                  >
                    show all
                  </Button>
                </Typography>
              )}
              {layout === "leans" ? (
                <Leans
                  box={{ ...box, tubes: shown }}
                  chosen={chosen?.id}
                  onChoose={choose}
                  onSchool={(s) => void setSchool(s)}
                />
              ) : (
                <Strips
                  tubes={shown}
                  chosen={chosen?.id}
                  beside={second?.id}
                  byFamily={sort === "hue"}
                  onChoose={choose}
                />
              )}
              {safe && (
                <Typography variant="caption" component="p" sx={{ mt: 1 }}>
                  Student-safe by pigment class; the label of the tube itself goes before.
                </Typography>
              )}
              {archived.length > 0 && layout === "strips" && (
                <Box sx={{ mt: 2, borderTop: `1px solid ${grey.hairline}`, pt: 1 }}>
                  <Typography variant="caption">archived</Typography>
                  <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
                    {archived.map((t) => (
                      <Link
                        key={t.id}
                        component="button"
                        color="inherit"
                        onClick={() => choose(t)}
                        sx={{ fontSize: 14, py: 0.5 }}
                      >
                        {nameOf(t)} {t.paint.ci}
                      </Link>
                    ))}
                  </Box>
                </Box>
              )}
            </>
          )}
        </Box>
        {lifted && (
          <CardFromBelow
            label={panel ? "what is done to the box" : "card of the tube"}
            tall
            onClose={() => show({ panel: undefined, tube: undefined, beside: undefined })}
          >
            {side}
          </CardFromBelow>
        )}
        {side && !lifted && (
          <Box
            ref={panelBox}
            sx={{
              borderLeft: { md: `1px solid ${grey.hairline}` },
              pl: { md: 2 },
              pt: { xs: 2, md: 0 },
              height: { md: placeHeight },
              overflowY: { md: "auto" },
            }}
          >
            {side}
          </Box>
        )}
      </Box>
    </Shell>
  );
}

/** Stable: what is equal stays in hue order; what has no price stands last. */
function sorted(tubes: KeptTube[], by: Sort): KeptTube[] {
  const key: Record<Sort, (t: KeptTube) => number> = {
    hue: () => 0,
    lightness: (t) => -(t.paint.masstone.lab?.[0] ?? 0),
    strength: (t) => -t.paint.strength,
    price: (t) => t.content.price ?? Infinity,
  };
  const of = key[by];
  return [...tubes].sort((a, b) => (of(a) === of(b) ? 0 : of(a) - of(b)));
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
      <Typography variant="caption">{label}</Typography>
      {children}
    </Box>
  );
}

/** The families in the box, each a word to see alone. */
function Families({
  tubes,
  family,
  onChoose,
}: {
  tubes: KeptTube[];
  family: string | null;
  onChoose: (f?: string) => void;
}) {
  const there = [...new Set(tubes.map((t) => t.paint.family))];
  if (there.length < 2) return null;
  const words = {
    all: "all families",
    ...Object.fromEntries(there.map((f) => [f, familyWords[f]])),
  };
  return (
    <Setting
      label="families"
      words={words}
      value={(family ?? "all") as keyof typeof words}
      onChoose={(f) => onChoose(f === "all" ? undefined : f)}
    />
  );
}

/** What a strip shows, in words. */
function Legend() {
  const line = { display: "flex", alignItems: "center", gap: 1.25, minHeight: 26 };
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
      <Typography variant="h3">Choose a paint</Typography>
      <Typography sx={{ color: grey.second }}>
        Each strip is drawn down from masstone to a thin wash, across a black stripe: what hides it
        is opaque. The wash shows what lies under a dark masstone.
      </Typography>
      <Typography component="div" variant="body2">
        <Box sx={line}>
          <Drop verdict="clean" /> clean, <Drop verdict="quiet" /> quiet: how bright its undertone
          is
        </Box>
        <Box sx={line}>
          <StrengthMark strength={3} /> tinting strength, 1 to 5
        </Box>
        <Box sx={line}>
          <HidingMark hiding="transparent" /> <HidingMark hiding="semi" />{" "}
          <HidingMark hiding="opaque" /> transparent, half opaque, opaque
        </Box>
      </Typography>
      <Typography variant="caption">
        Lean is measured on the tint of 1 to 9 in white, in degrees of hue from the hinge of the
        family.
      </Typography>
    </Box>
  );
}

function Notices({ own, every }: { own: OwnBox; every: KeptTube[] }) {
  const clash = every.find((t) => (t.refused?.length ?? 0) > 0);
  const refused = clash?.refused?.[0];
  return (
    <>
      {own.problem && (
        <Notice>
          {own.problem}
          <Button color="inherit" onClick={own.clear}>
            understood
          </Button>
        </Notice>
      )}
      {clash && refused && (
        <Notice>
          <Box sx={{ flex: "1 1 320px" }}>
            {nameOf(clash)} was changed in two places at once. Shown here: {describe(clash.content)}
            . Kept beside it: {describe(refused.content)}.
          </Box>
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => own.change(clash, refused.content, refused.id)}
          >
            take the one kept beside
          </Button>
          <Button color="inherit" onClick={() => own.letGo(clash, refused.id)}>
            stay with this one
          </Button>
        </Notice>
      )}
    </>
  );
}

function describe(c: KeptTube["content"]): string {
  return [
    c.nickname ? `“${c.nickname}”` : "no nickname",
    c.grade,
    c.tubeMl && `${c.tubeMl} ml`,
    c.price !== null && `price ${c.price}`,
    c.note && `note “${c.note.slice(0, 40)}”`,
    c.archived && "archived",
  ]
    .filter(Boolean)
    .join(", ");
}
