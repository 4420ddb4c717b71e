import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To, useParams } from "react-router";
import type { BenchSettings, BenchSheet, Profile, Settings } from "../api/client";
import { planQuery, wheelQuery } from "../api/queries";
import { KeptShell, MissingWheel, NameField, SavedMark } from "../app/Kept";
import { grey } from "../drawing/style";
import { Reminder } from "../parts/Reminder";
import { TubesOrPans } from "../parts/TubesOrPans";
import { sheetAddress, sheetIn } from "../parts/sheet";
import { relisted, toggled, useAddress } from "../parts/useAddress";
import { plainSettings, sheetWords } from "../parts/choices";
import { useKeptWheel } from "../parts/useKeptWheel";
import { useMeasure } from "../parts/useMeasure";
import { useUndoKey } from "../parts/useUndoKey";
import { Waiting } from "../parts/Waiting";
import { Tabs } from "../parts/Tabs";
import { BenchBar } from "./BenchBar";
import { SwatchCurve } from "./SwatchCurve";
import { HourFigure } from "./HourFigure";
import { Drawing, InOrder, LayOut, WaysToFill } from "./Panels";
import { SheetFigure } from "./SheetFigure";
import { Sittings } from "./Sittings";
import { washes } from "../parts/naming";
import { minutes, moved, wished } from "./words";

const views = {
  layout: "lay out",
  order: "in order",
  draw: "draw it",
  ways: "ways to fill",
} as const;
const nothing = { kind: "triad" as const, roles: [], chosen: [], riders: {}, note: "" };

/** The sheet that is shown, on paper. */
function paperOf(id: number, sheet: BenchSheet) {
  const of = new URLSearchParams();
  for (const [name, said] of Object.entries(sheetAddress(sheet))) if (said) of.set(name, said);
  return `/bench/${id}/paper?${of}`;
}

export function BenchPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneBench key={id} id={id} painter={painter} />;
}

/** How a wheel is painted: the sheet, what it takes, and the order. */
function OneBench({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content, change } = own;
  const { search, show, one } = useAddress();
  const kept = content?.settings ?? plainSettings;
  const { measure, size } = useMeasure(kept.medium);
  const settings: Settings = { ...kept, bench: { ...kept.bench, measure, one: size } };
  const system = content?.system ?? nothing;
  const sheet = sheetIn(search, one<keyof typeof sheetWords>("sheet", sheetWords, "wheel"));
  const ofSwatches = sheet.kind === "swatches";
  const words: Record<string, string> = ofSwatches
    ? { brings: "what they bring", ...views }
    : views;
  const view = one<string>("view", words, ofSwatches ? "brings" : "layout");
  const quick = useQuery({ ...planQuery(id, system, settings, sheet, true), enabled: !!content });
  const exact = useQuery({ ...planQuery(id, system, settings, sheet, false), enabled: !!content });
  const wheel = useQuery({ ...wheelQuery(id, system, kept), enabled: !!content });
  useUndoKey(own.undo);

  if (own.query.error && !own.kept)
    return <MissingWheel painter={painter} sentence={own.query.error.message} />;
  if (!content) return <Waiting failing={own.query.failureCount > 0} />;

  const plan = exact.data ?? quick.data;
  const wrong = exact.error ?? quick.error;
  const bench = kept.bench ?? {};
  const set = (next: BenchSettings) =>
    change({ ...content, settings: { ...content.settings, bench: next } });
  const region = plan?.regions.findIndex((r) => r.id === search.get("region")) ?? -1;
  const choose = (r: number) => show({ region: plan?.regions[r]?.id, view: "order" });
  const move = (r: number, to: number) => {
    const wish = plan && moved(plan, r, to);
    if (wish) set(wished(bench, ...wish));
  };
  return (
    <KeptShell painter={painter} own={{ ...own, content }} id={id} place="bench">
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2 }}>
        <Box sx={{ flex: "0 1 420px", display: { xs: "none", sm: "block" } }}>
          <NameField name={content.name} onRename={(name) => change({ ...content, name })} />
        </Box>
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            justifyContent: "flex-end",
            alignItems: "flex-start",
          }}
        >
          <Button component={To} to={paperOf(id, sheet)} color="inherit">
            on paper
          </Button>
          <Sittings id={id} sheet={sheet} measure={measure} one={size} />
          <SavedMark own={own} />
        </Box>
      </Box>
      <Reminder wheel={id} />
      <TubesOrPans medium={kept.medium} />
      {wrong && !plan && <Typography role="alert">{wrong.message}</Typography>}
      {plan && (
        <>
          <BenchBar
            plan={plan}
            bench={bench}
            medium={kept.medium}
            sheet={sheet}
            slots={wheel.data?.slots ?? []}
            sections={wheel.data?.sections ?? []}
            onShow={(next) => show({ ...sheetAddress(next), region: undefined })}
            onTurn={(list, part) => show({ ...relisted(list, toggled(part)), region: undefined })}
            onSet={set}
          />
          {wrong && <Typography role="alert">{wrong.message}</Typography>}
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 520px" },
              gap: 3,
              mt: 1,
            }}
          >
            <SheetFigure plan={plan} chosen={region} onChoose={choose} />
            <Box sx={{ minWidth: 0 }}>
              <Box
                sx={{
                  "& [role=radiogroup]": { flexWrap: "wrap" },
                  "& [role=radio]": { minHeight: { xs: 56, md: 0 } },
                }}
              >
                <Tabs label="plan" words={words} value={view} onChoose={(v) => show({ view: v })} />
              </Box>
              <Box sx={{ height: { md: 372 }, overflowY: { md: "auto" }, pt: 1, pr: 1 }}>
                {view === "brings" && (
                  <SwatchCurve wheel={id} system={system} settings={settings} sheet={sheet} />
                )}
                {view === "layout" && <LayOut plan={plan} />}
                {view === "order" && (
                  <InOrder plan={plan} chosen={region} onChoose={choose} onMove={move} />
                )}
                {view === "draw" && <Drawing plan={plan} />}
                {view === "ways" && (
                  <WaysToFill
                    plan={plan}
                    first={bench.first?.[0]}
                    onFill={(fill) => set({ ...bench, fill })}
                    onFirst={(section) => set({ ...bench, first: [section] })}
                  />
                )}
              </Box>
            </Box>
          </Box>
          <Box
            component="section"
            aria-label="the order"
            sx={{ borderTop: `2px solid ${grey.ink}`, mt: 1, pt: 0.5 }}
          >
            <Box
              sx={{
                display: "flex",
                flexWrap: "wrap",
                justifyContent: "space-between",
                columnGap: 3,
              }}
            >
              <Typography sx={{ fontWeight: 600 }}>
                {minutes(plan.totalMinutes)}, {washes(plan.washes)}:{" "}
                <span role="status">{plan.working ? `${plan.says}, so far` : plan.says}</span>
                {plan.askedMinutes > 0 && `; your order costs ${minutes(plan.askedMinutes)}`}
              </Typography>
              <Typography variant="caption">
                {plan.kind === "wheel" ? "round the wheel" : "one after the other"}{" "}
                {minutes(plan.naiveMinutes)}, {washes(plan.naiveWashes)}
                {plan.kind === "wheel" &&
                  `; primaries, secondaries, tertiaries ${minutes(plan.byKindMinutes)}, ${washes(plan.byKindWashes)}`}
              </Typography>
            </Box>
            {[plan.why, plan.late].map(
              (why) =>
                why && (
                  <Typography key={why} variant="body2">
                    {why}
                  </Typography>
                ),
            )}
            <HourFigure plan={plan} chosen={region} onChoose={choose} onMove={move} />
          </Box>
        </>
      )}
    </KeptShell>
  );
}
