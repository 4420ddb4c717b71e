import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useState } from "react";
import { Link as To, useParams } from "react-router";
import type { Profile, Settings, Slot, Wheel, WheelChoices } from "../api/client";
import { paintsQuery, predictionsQuery, wheelQuery } from "../api/queries";
import { placeOf, useAtHand, wheelThing } from "../parts/holding";
import { judgedWords, lightWords, plainSettings } from "../parts/choices";
import { KeptNotices, MissingWheel, NameField, SavedMark } from "../app/Kept";
import { PaintPicker } from "../parts/PaintPicker";
import { FromBelow } from "../parts/FromBelow";
import { Shell } from "../app/Shell";
import { grey, placeHeight } from "../drawing/style";
import { asked, useAddress } from "../parts/useAddress";
import { useKeptWheel } from "../parts/useKeptWheel";
import { CardFromBelow, clearOfCard } from "../parts/CardFromBelow";
import { showItAt } from "../parts/showing";
import { colourFiles, TakeAlong } from "../parts/TakeAlong";
import { usePhone } from "../parts/usePhone";
import { useUndoKey } from "../parts/useUndoKey";
import { Waiting } from "../parts/Waiting";
import { WheelMenu } from "../parts/WheelMenu";
import { Tabs } from "../parts/Tabs";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { ChoicesBar } from "./ChoicesBar";
import { CoverCard } from "./CoverCard";
import { Evenness } from "./Evenness";
import { GlazesView } from "./GlazesView";
import { NeutralsView } from "./NeutralsView";
import { StepCard } from "./StepCard";
import { TurnedOut } from "./TurnedOut";
import { WheelFigure } from "./WheelFigure";
import { ratio } from "./words";
import { Word } from "../parts/Word";

const views = { wheel: "wheel", neutrals: "neutrals", glazes: "glazes" } as const;

export function WheelPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneWheel key={id} id={id} painter={painter} />;
}

/** What the address says of the view goes before what was saved. */
function useView(saved: Settings | undefined) {
  const { search, show, one } = useAddress();
  return {
    slot: slotIn(search),
    view: one<keyof typeof views>("view", views, "wheel"),
    covered: search.get("cover") === "on",
    halves: search.get("halves") === "on",
    settings: saved && {
      ...saved,
      light: one("light", lightWords, saved.light),
      judged: one("judged", judgedWords, saved.judged),
    },
    show,
  };
}

function slotIn(address: URLSearchParams): number {
  const slot = Number(address.get("slot") ?? "1") - 1;
  return slot >= 0 && slot < 12 && Number.isInteger(slot) ? slot : 0;
}

/** How high the line below the wheel is, px. */
const madeHeight = 28;

const nothing = { kind: "triad" as const, roles: [], chosen: [], riders: {}, note: "" };

function OneWheel({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content, change, undo } = own;
  const { slot: chosen, view, covered, halves, settings, show } = useView(content?.settings);
  const { phone } = usePhone();
  const [up, setUp] = useState(false);
  const [making, setMaking] = useState(false);
  const [picking, setPicking] = useState<{ role: number; name: string } | null>(null);
  const wheel = useQuery({
    ...wheelQuery(id, content?.system ?? nothing, settings ?? plainSettings),
    enabled: !!content,
  });
  const paints = useQuery(paintsQuery(settings ?? plainSettings));
  const predictions = useQuery(predictionsQuery(id));

  useUndoKey(undo);
  /** To the next slot that is not empty, one way or the other. */
  const walk = (by: 1 | -1) => {
    const next = wheel.data && nextSlot(wheel.data, slotIn(asked()), by);
    if (next !== undefined) show({ slot: String(next + 1) });
  };
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.target === document.body && (e.key === "ArrowRight" || e.key === "ArrowLeft"))
        walk(e.key === "ArrowRight" ? 1 : -1);
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });

  const name = own.kept?.name ?? "";
  const looked = wheel.data?.slots[chosen];
  const conditions = settings && {
    medium: settings.medium,
    light: settings.light,
    judged: settings.judged,
  };
  useAtHand([
    conditions &&
      looked &&
      !looked.empty && {
        name: `${looked.name} of ${name}`,
        view: conditions,
        row: { wheel: id, places: [placeOf(`${looked.name} of ${name}`, looked)] },
      },
    conditions && wheel.data && wheelThing(name, id, wheel.data.slots, conditions),
  ]);

  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content || !settings) return <Waiting failing={own.query.failureCount > 0} />;

  const { system } = content;
  const single = system.roles.every((r) => r.length <= 1);
  const choose = (slot: number) => {
    setPicking(null);
    setUp(true);
    show({ slot: String(slot + 1) });
  };
  const open = (index: number) => {
    show({ slot: String(index + 1) });
    const slot = wheel.data?.slots[index];
    if (slot?.role && single) setPicking({ role: slot.home / 4, name: slot.role });
  };
  const set = (next: Partial<Settings>) => {
    change({ ...content, settings: { ...settings, ...next } });
    const { light, judged } = next;
    if (light) show({ light });
    if (judged) show({ judged });
  };
  const setChoices = (choices: Partial<WheelChoices>) =>
    set({ choices: { ...settings.choices, ...choices } });
  const present = picking ? system.roles[picking.role]?.[0] : undefined;
  const got = wheel.data;
  const slot = got?.slots[chosen];

  const along = [
    { name: "on paper", to: `/bench/${id}/paper` },
    { name: "show it to others", to: showItAt(settings, "wheel", id) },
    { name: "put it on the wall", to: `/wall/${id}` },
    { name: "predict it with a class", to: `/class/${id}` },
    { name: "all of it, for another painter", href: `/api/wheels/${id}/file` },
    ...colourFiles((format) => `/api/wheels/${id}/palette?format=${format}`),
  ];
  const cover = () => show({ cover: covered ? undefined : "on" });
  const tabs = (
    <Tabs
      label="looked at"
      words={views}
      value={view}
      onChoose={(v) => show({ view: v === "wheel" ? undefined : v })}
    />
  );
  const card =
    picking && paints.data ? (
      <PaintPicker
        key={picking.name}
        role={picking.name}
        paints={paints.data}
        present={present}
        taken={system.roles.flat()}
        onClose={() => setPicking(null)}
        onPick={(p) => {
          setPicking(null);
          if (p.id !== present)
            change({
              ...content,
              system: {
                ...system,
                roles: system.roles.map((r, k) => (k === picking.role ? [p.id] : r)),
              },
            });
        }}
      />
    ) : covered && got ? (
      <CoverCard
        wheel={got}
        id={id}
        version={own.kept?.version ?? 0}
        saved={own.saved}
        predictions={predictions.data}
        onLift={() => show({ cover: undefined })}
      />
    ) : (
      got &&
      slot && (
        <StepCard
          wheel={got}
          name={own.kept?.name ?? ""}
          slot={slot}
          settings={settings}
          predictions={predictions.data}
          version={own.kept?.version}
          onChoose={choose}
          onCall={(name) =>
            setChoices({ called: calledSo(settings.choices.called, slot.home, name) })
          }
          onSwap={single ? () => open(chosen) : undefined}
          system={`/system/${id}`}
        />
      )
    );
  const choices = got && view === "wheel" && (
    <ChoicesBar
      wheel={got}
      printed={system.kind === "cmy"}
      choices={settings.choices}
      halves={halves}
      onSet={setChoices}
      onHalves={() => show({ halves: halves ? undefined : "on" })}
      drawnOut={got.slots.some((s) => s.drawn)}
      onDraw={(graded) => set({ bench: { ...settings.bench, graded } })}
    />
  );
  const shown = (
    <>
      {wheel.error && !got && (
        <Box sx={{ pt: 18 }}>
          <Typography role="alert">{wheel.error.message}</Typography>
          <Button component={To} to={`/system/${id}`} variant="outlined" sx={{ mt: 2 }}>
            to the system
          </Button>
        </Box>
      )}
      {got && view === "wheel" && (
        <>
          <WheelFigure
            wheel={got}
            chosen={chosen}
            covered={covered}
            halves={halves}
            below={madeHeight}
            clear={phone && up ? clearOfCard : undefined}
            onChoose={choose}
            onWalk={walk}
            onOpen={() => open(slotIn(asked()))}
          />
          <Legend wheel={got} />
          {!covered && <Evenness wheel={got} onChoose={choose} />}
        </>
      )}
      {got && view === "neutrals" && (
        <NeutralsView
          id={id}
          system={system}
          settings={settings}
          wheel={got}
          slot={chosen}
          onChoose={choose}
        />
      )}
      {got && view === "glazes" && (
        <GlazesView
          id={id}
          system={system}
          settings={settings}
          wheel={got}
          paints={paints.data ?? []}
        />
      )}
    </>
  );
  /** On a phone: whether the card lies over the lower part of the page. */
  const lifted = phone && view === "wheel" && !!card && (up || covered || !!picking);
  return (
    <Shell
      painter={painter}
      title={`Wheel of ${content.name}`}
      open={<WheelMenu name={content.name} current={id} place="wheel" />}
      beside={<Primaries wheel={got} onOpen={open} />}
      viewed={{ view: settings, onSet: set }}
      notice={
        <>
          <KeptNotices own={own} />
          <TurnedOut id={id} version={own.kept?.version ?? 0} />
          {got && got.notes.length > 0 && !covered && (
            <Typography
              role="note"
              aria-label="what to know of this wheel"
              sx={{ p: { xs: "8px 16px", md: "8px 24px 0 116px" } }}
            >
              {got.notes.join(" ")}
            </Typography>
          )}
        </>
      }
    >
      {phone ? (
        <>
          <Box sx={{ display: lifted ? "none" : "flex", alignItems: "center" }}>
            {tabs}
            <Box sx={{ flex: 1 }} />
            {view === "wheel" && (
              <Button color="inherit" onClick={cover}>
                {covered ? "uncover" : "cover, guess"}
              </Button>
            )}
          </Box>
          {shown}
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, mt: 1 }}>
            {!covered && (
              <Button component={To} to={`/bench/${id}`} variant="contained" sx={{ flex: 1 }}>
                paint it
              </Button>
            )}
            {choices && (
              <Button
                variant="outlined"
                color="inherit"
                aria-haspopup="dialog"
                onClick={() => setMaking(true)}
              >
                how it is made
              </Button>
            )}
            <TakeAlong of={along} />
            <SavedMark own={own} />
          </Box>
          <FromBelow label="how it is made" open={making} onClose={() => setMaking(false)}>
            {choices}
          </FromBelow>
          {lifted && (
            <CardFromBelow
              label="card of the slot"
              before={got && neighbour(got, chosen, -1, choose)}
              after={got && neighbour(got, chosen, 1, choose)}
              onClose={() => {
                setUp(false);
                setPicking(null);
                if (covered) cover();
              }}
            >
              {card}
            </CardFromBelow>
          )}
        </>
      ) : (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 372px" },
            gap: 3,
          }}
        >
          <Box>
            <Box
              sx={{
                position: "relative",
                minHeight: { md: choices ? `calc(${placeHeight} - ${madeHeight}px)` : placeHeight },
              }}
            >
              <Box
                sx={{
                  display: "flex",
                  justifyContent: "space-between",
                  position: { md: view === "wheel" ? "absolute" : "static" },
                  inset: "0 0 auto 0",
                  pointerEvents: "none",
                  "& > *": { pointerEvents: "auto" },
                }}
              >
                <Box sx={{ maxWidth: 340, flex: 1 }}>
                  <NameField
                    name={content.name}
                    onRename={(name) => change({ ...content, name })}
                  />
                  {tabs}
                </Box>
                <Box
                  sx={{
                    display: "flex",
                    flexWrap: "wrap",
                    justifyContent: "flex-end",
                    alignItems: "flex-start",
                    "& > .MuiButton-text": { px: 0.75, minWidth: 0 },
                  }}
                >
                  {view === "wheel" && (
                    <Button color="inherit" aria-pressed={covered} onClick={cover}>
                      {covered ? "uncover" : "cover, guess"}
                    </Button>
                  )}
                  {!covered && (
                    <Button component={To} to={`/bench/${id}`} variant="contained" sx={{ mx: 1 }}>
                      paint it
                    </Button>
                  )}
                  <SavedMark own={own} />
                  <Box sx={{ flexBasis: "100%", textAlign: "right", mt: -1.5 }}>
                    <TakeAlong of={along} />
                  </Box>
                </Box>
              </Box>
              {shown}
            </Box>
            {choices}
          </Box>
          <Box
            sx={{
              borderLeft: { md: `1px solid ${grey.hairline}` },
              pl: { md: 2 },
              height: { md: placeHeight },
              overflowY: { md: "auto" },
            }}
          >
            {card}
          </Box>
        </Box>
      )}
    </Shell>
  );
}

/** The next slot that is not empty, one way or the other, and the way there. */
function neighbour(wheel: Wheel, from: number, by: 1 | -1, go: (slot: number) => void) {
  const at = nextSlot(wheel, from, by);
  return at === undefined ? undefined : { name: wheel.slots[at]!.name, go: () => go(at) };
}

const nextSlot = (wheel: Wheel, from: number, by: 1 | -1) =>
  Array.from({ length: 12 }, (_, i) => (from + by * (i + 1) + 12) % 12).find(
    (i) => !wheel.slots[i]!.empty,
  );

/** The painter's own names of slots, with one more or one less. */
function calledSo(called: string[] | undefined, home: number, name: string) {
  const out = Array.from({ length: 12 }, (_, k) => called?.[k] ?? "");
  out[home] = name;
  return out;
}

/** The tubes of the wheel in the bar. */
function Primaries({ wheel, onOpen }: { wheel?: Wheel; onOpen: (slot: number) => void }) {
  const { fill } = useColours();
  const marks = (wheel?.slots ?? [])
    .filter((s) => s.role && !s.empty)
    .sort((a, b) => a.home - b.home);
  const swatches = marks.flatMap(
    (s): { slot: Slot; paint: string; name: string; colour: Slot["asPainted"] }[] =>
      s.halves?.length
        ? s.halves.map((h) => ({
            slot: s,
            paint: h.parts[0]!.code,
            name: h.name,
            colour: h.asPainted,
          }))
        : [{ slot: s, paint: s.parts[0]!.code, name: s.parts[0]!.name, colour: s.asPainted }],
  );
  const w = swatches.length > 3 ? 15 : 26;
  return (
    <Box sx={{ display: "flex", gap: swatches.length > 3 ? "1px" : "3px" }}>
      {swatches.map((s, i) => (
        <Box
          key={i}
          component="button"
          aria-label={`swap the ${s.slot.role}, ${s.name}`}
          title={`${s.paint} ${s.name}`}
          onClick={() => onOpen(s.slot.index)}
          sx={{
            width: w,
            height: 32,
            p: 0,
            border: 0,
            cursor: "pointer",
            bgcolor: "transparent",
            lineHeight: 0,
          }}
        >
          <svg width={w} height={24} aria-hidden>
            <rect width={w} height={24} fill={fill(s.colour)} />
          </svg>
        </Box>
      ))}
    </Box>
  );
}

function Legend({ wheel }: { wheel: Wheel }) {
  const line = { display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.75 };
  return (
    <Box
      sx={{
        position: { md: "absolute" },
        left: 0,
        bottom: 0,
        display: "flex",
        flexDirection: { xs: "row", md: "column" },
        flexWrap: "wrap",
        gap: { xs: 2, md: 0 },
        color: grey.third,
        fontSize: 12,
        lineHeight: "17px",
      }}
    >
      <span>
        <b>rim</b> as painted, with its <Word of="value" />
      </span>
      <span>
        <b>ribbon</b> thick is bright, <b>‖</b> the step jumps
      </span>
      <span>
        <b>dots</b> clean where it reaches past them
      </span>
      {!!wheel.raised?.length && (
        <span>
          <b>raised</b> with white:{" "}
          {wheel.raised.map((r) => `${r.paint} ${ratio(r.parts)}`).join(", ")}
        </span>
      )}
      {wheel.choices.raise && !wheel.raised?.length && (
        <span>
          <b>raised</b> none: no paint here is so dark that white would show its hue
        </span>
      )}
      <Box sx={line}>
        <Word of="drop">drops</Word>
        <Drop verdict="clean" height={12} /> clean <Drop verdict="quiet" height={12} /> quiet{" "}
        <Drop verdict="softened" height={12} /> softened <Drop verdict="muddy" height={12} /> muddy
      </Box>
    </Box>
  );
}
