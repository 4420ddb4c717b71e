import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import type { BenchPlan, BenchSettings, Conditions } from "../api/client";
import { Choice, OneOf } from "../parts/Choice";
import { fillWords } from "../parts/choices";
import { Measures } from "../parts/InMeasure";

const diameters = [100, 120, 150, 180, 210, 250, 300, 400];

/** How it is painted: sizes and tools, each a word that opens its choices. */
export function BenchBar({
  plan,
  bench,
  medium,
  onSet,
}: {
  plan: BenchPlan;
  bench: BenchSettings;
  medium: Conditions["medium"];
  onSet: (next: BenchSettings) => void;
}) {
  const set = (next: Partial<BenchSettings>) => onSet({ ...bench, ...next });
  const now = plan.settings;
  const numbers = (of: number[], unit: string) =>
    of.map((n) => ({
      value: String(n),
      name: `${n} ${unit}${n === 1 ? "" : unit === "mm" ? "" : "s"}`,
    }));
  const first = bench.first?.[0];
  const pinned = plan.sections.find((s) => s.section === first);
  const tools: [string, boolean, Partial<BenchSettings>][] = [
    ["a dryer", !!bench.dryer, { dryer: !bench.dryer }],
    ["hairline gaps between slots", !!bench.gaps, { gaps: !bench.gaps }],
    ["wells under a cover", !!bench.covered, { covered: !bench.covered }],
    ["slots washed toward the tip", !!bench.graded, { graded: !bench.graded }],
  ];
  const chosen = tools.filter(([, on]) => on).length;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        columnGap: 2.5,
        "& button": { minHeight: { xs: 56, md: 36 }, py: 0 },
      }}
    >
      <OneOf
        label={`diameter: ${now.diameter} mm`}
        shown={`${now.diameter} mm`}
        of={numbers(diameters, "mm")}
        value={String(now.diameter)}
        onChoose={(v) => set({ diameter: Number(v) })}
      />
      <OneOf
        label={`brushes: ${now.brushes}`}
        shown={now.brushes === 1 ? "one brush" : "two brushes"}
        of={numbers([1, 2], "brush").map((n) => ({
          ...n,
          name: n.value === "1" ? "one brush" : "two brushes",
        }))}
        value={String(now.brushes)}
        onChoose={(v) => set({ brushes: Number(v) })}
      />
      <OneOf
        label={`wells: ${now.wells}`}
        shown={`${now.wells} wells`}
        of={numbers([2, 3, 4, 6, 8, 12, 20], "well")}
        value={String(now.wells)}
        onChoose={(v) => set({ wells: Number(v) })}
      />
      <OneOf
        label={`coats: ${now.coats}`}
        shown={now.coats === 1 ? "one coat" : `${now.coats} coats`}
        of={numbers([1, 2, 3], "coat")}
        value={String(now.coats)}
        onChoose={(v) => set({ coats: Number(v) })}
      />
      <OneOf
        label="loss"
        shown={`${Math.round(100 * (now.loss ?? 0))} % is lost`}
        of={[0.1, 0.2, 0.3, 0.5].map((v) => ({
          value: String(v),
          name: `${100 * v} % stays in brush and well`,
        }))}
        value={String(now.loss)}
        onChoose={(v) => set({ loss: Number(v) })}
      />
      <Choice
        label="tools"
        bold={false}
        shown={
          chosen === 0
            ? "no dryer, no gaps"
            : tools
                .filter(([, on]) => on)
                .map(([what]) => what.replace(" between slots", "").replace(" toward the tip", ""))
                .join(", ")
        }
      >
        {() =>
          tools.map(([what, on, next]) => (
            <MenuItem
              key={what}
              role="menuitemcheckbox"
              aria-checked={on}
              selected={on}
              onClick={() => set(next)}
            >
              {on ? "✓ " : ""}
              {what}
            </MenuItem>
          ))
        }
      </Choice>
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
      <OneOf
        label="first"
        shown={pinned ? `${pinned.from} to ${pinned.to} first` : "no section first"}
        of={[
          { value: "", name: "no section first" },
          ...plan.sections.map((s) => ({
            value: String(s.section),
            name: `${s.from} to ${s.to} first`,
          })),
        ]}
        value={first === undefined ? "" : String(first)}
        onChoose={(v) => set({ first: v === "" ? undefined : [Number(v)] })}
      />
      <Measures medium={medium} />
      {(bench.before?.length ?? 0) > 0 && (
        <Button color="inherit" size="small" onClick={() => set({ before: undefined })}>
          let my order go
        </Button>
      )}
    </Box>
  );
}
