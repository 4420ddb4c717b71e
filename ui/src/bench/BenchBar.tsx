import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import type {
  BenchPlan,
  BenchSettings,
  BenchSheet,
  Conditions,
  Section,
  Slot,
} from "../api/client";
import { FromBelow } from "../parts/FromBelow";
import { Choice, OneOf } from "../parts/Choice";
import { fillWords } from "../parts/choices";
import { Measures } from "../parts/InMeasure";
import { SheetChoice } from "../parts/SheetChoice";
import { usePhone } from "../parts/usePhone";

/** One of a few numbers, with what it is called. */
type Numbered = { title: string; value?: number; of: [number, string][]; set: (n: number) => void };

/** A word that opens several short lists below it. */
function Several({
  label,
  shown,
  lists,
  ticks = [],
}: {
  label: string;
  shown: string;
  lists: Numbered[];
  ticks?: { what: string; on: boolean; turn: () => void }[];
}) {
  return (
    <Choice label={label} bold={false} shown={shown}>
      {() => [
        ...ticks.map((t) => (
          <MenuItem
            key={t.what}
            role="menuitemcheckbox"
            aria-checked={t.on}
            selected={t.on}
            onClick={t.turn}
          >
            {t.on && "✓ "}
            {t.what}
          </MenuItem>
        )),
        ...lists.flatMap((l) => [
          <ListSubheader key={l.title} sx={{ bgcolor: "transparent", lineHeight: "28px" }}>
            {l.title}
          </ListSubheader>,
          ...l.of.map(([n, name]) => (
            <MenuItem
              key={l.title + name}
              role="menuitemradio"
              aria-checked={n === l.value}
              selected={n === l.value}
              onClick={() => l.set(n)}
            >
              {name}
            </MenuItem>
          )),
        ]),
      ]}
    </Choice>
  );
}

const diameters = [100, 120, 150, 180, 210, 250, 300, 400];
const named = (of: number[], one: string, many: string): [number, string][] =>
  of.map((n) => [n, n === 1 ? one : `${n} ${many}`]);

/** How it is painted: what, sizes and tools, each a word that opens its choices. */
export function BenchBar({
  plan,
  bench,
  medium,
  sheet,
  slots,
  sections,
  onShow,
  onTurn,
  onSet,
}: {
  plan: BenchPlan;
  bench: BenchSettings;
  medium: Conditions["medium"];
  sheet: BenchSheet;
  slots: Slot[];
  sections: Section[];
  onShow: (next: BenchSheet) => void;
  onTurn: (list: "without" | "with", one: string) => void;
  onSet: (next: BenchSettings) => void;
}) {
  const { phone } = usePhone();
  const [asked, setAsked] = useState(false);
  const set = (next: Partial<BenchSettings>) => onSet({ ...bench, ...next });
  const now = plan.settings;
  const drawnOut = !!now.graded;
  const coats = named([1, 2, 3], "one coat", "coats");
  const ticks = [
    { what: "a dryer", on: !!bench.dryer, turn: () => set({ dryer: !bench.dryer }) },
    {
      what: "wells under a cover",
      on: !!bench.covered,
      turn: () => set({ covered: !bench.covered }),
    },
  ];
  const on = ticks.filter((t) => t.on);
  const slotTicks = [
    {
      what: "hairline gaps between slots",
      on: !!bench.gaps,
      turn: () => set({ gaps: !bench.gaps }),
    },
    {
      what: "slots drawn out toward the tip",
      on: drawnOut,
      turn: () => set({ graded: !drawnOut }),
    },
  ];
  const wishes = (bench.before?.length ?? 0) + (bench.first?.length ?? 0) > 0;
  const how = (
    <>
      {plan.kind === "wheel" && (
        <OneOf
          label={`diameter: ${now.diameter} mm`}
          shown={`${now.diameter} mm`}
          of={diameters.map((d) => ({ value: String(d), name: `${d} mm` }))}
          value={String(now.diameter)}
          onChoose={(v) => set({ diameter: Number(v) })}
        />
      )}
      <Several
        label="table"
        shown={`${now.brushes === 1 ? "one brush" : "two brushes"}${now.knife ? " and a knife" : ""}, ${now.wells} wells`}
        ticks={[
          {
            what: "mixed with a knife",
            on: !!bench.knife,
            turn: () => set({ knife: !bench.knife }),
          },
        ]}
        lists={[
          {
            title: "brushes",
            value: now.brushes,
            of: [
              [1, "one brush"],
              [2, "two brushes"],
            ],
            set: (brushes) => set({ brushes }),
          },
          {
            title: "wells to mix in",
            value: now.wells,
            of: named([2, 3, 4, 6, 8, 12, 20], "one well", "wells"),
            set: (wells) => set({ wells }),
          },
          {
            title: "a wiped brush still holds",
            value: now.residue,
            of: [
              [0.003, "next to nothing"],
              [0.01, "0.01 ml, as usual"],
              [0.03, "0.03 ml, a large one"],
            ],
            set: (residue) => set({ residue }),
          },
          {
            title: "jars of water",
            value: now.waters,
            of: named([1, 2, 3], "one jar", "jars"),
            set: (waters) => set({ waters }),
          },
        ]}
      />
      <Several
        label="slots"
        shown={`${bench.gaps ? "hairline gaps" : "edge to edge"}${drawnOut ? ", drawn out" : ""}`}
        ticks={slotTicks}
        lists={[]}
      />
      <Several
        label="amounts"
        shown={`${coats[(now.coats ?? 1) - 1]?.[1] ?? ""}, ${Math.round(100 * (now.loss ?? 0))} % lost`}
        lists={[
          { title: "coats", value: now.coats, of: coats, set: (c) => set({ coats: c }) },
          {
            title: "stays in brush and well",
            value: now.loss,
            of: [0.1, 0.2, 0.3, 0.5].map((v) => [v, `${100 * v} %`]),
            set: (loss) => set({ loss }),
          },
        ]}
      />
      <Several
        label="drying"
        shown={on.length ? on.map((t) => t.what).join(", ") : "no dryer"}
        ticks={ticks}
        lists={[
          {
            title: "at this table paint dries",
            value: now.pace,
            of: [
              [0.5, "in half the time"],
              [0.75, "in three quarters of the time"],
              [1, "as usual"],
              [1.5, "in half as long again"],
              [2, "in twice the time"],
            ],
            set: (pace) => set({ pace }),
          },
        ]}
      />
      {plan.sections.length > 0 && (
        <OneOf
          label={`filled: ${plan.fill}`}
          shown={fillWords[plan.fill]}
          of={[
            { value: "", name: "as suits the medium" },
            ...Object.entries(fillWords).map(([value, name]) => ({ value, name })),
          ]}
          value={bench.fill ?? ""}
          onChoose={(v) => set({ fill: v || undefined })}
        />
      )}
      <Measures medium={medium} />
      {wishes && (
        <Button
          color="inherit"
          size="small"
          onClick={() => set({ before: undefined, first: undefined })}
        >
          let my order go
        </Button>
      )}
    </>
  );
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        columnGap: 2.5,
        "& button": { minHeight: { xs: 56, md: 36 }, py: 0 },
      }}
    >
      <SheetChoice
        sheet={sheet}
        onShow={onShow}
        onTurn={onTurn}
        slots={slots}
        sections={sections}
      />
      {phone ? (
        <>
          <Button
            variant="outlined"
            color="inherit"
            aria-haspopup="dialog"
            onClick={() => setAsked(true)}
          >
            how it is painted
          </Button>
          <FromBelow label="how it is painted" open={asked} onClose={() => setAsked(false)}>
            {how}
          </FromBelow>
        </>
      ) : (
        how
      )}
    </Box>
  );
}
