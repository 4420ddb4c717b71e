import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import type { BenchPlan, Schemas } from "../api/client";
import { useColours } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import { fillWords } from "../parts/choices";
import { CountedOut } from "../parts/CountedOut";
import { InTubes, MayAsk } from "../parts/InTubes";
import { HowToMix } from "../parts/Recipe";
import { useMeasure } from "../parts/useMeasure";
import { Tabs } from "../parts/Tabs";
import { clock, minutes, ownPace } from "./words";

const figure = { fontFamily: figures, textAlign: "right" } as const;

/** What to squeeze out of each tube. */
export function LayOut({ plan }: { plan: BenchPlan }) {
  const { fill } = useColours();
  const long = (a: BenchPlan["amounts"][number]) => a.loads || a.ribbonMm;
  const longest = Math.max(...plan.amounts.map(long), 1);
  const thinned = plan.regions.some((r) => r.thinner > 0);
  const pans = plan.amounts.some((a) => a.loads > 0);
  return (
    <Box component="section" aria-label="what to lay out">
      <Typography variant="body2" sx={{ mb: 1 }}>
        Paint for {plan.regions.length} places, with {Math.round(100 * (plan.settings.loss ?? 0))} %
        for brush and well and as much for what stays where it is laid out
        {thinned && "; without what thins it"}.{" "}
        {pans
          ? "Wet these pans; nothing is squeezed out."
          : `Ribbons are those of a nozzle ${plan.settings.nozzle} mm wide.`}
      </Typography>
      {plan.amounts.map((a) => (
        <Box
          key={a.paint}
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "minmax(0, 1fr) 60px 96px", sm: "190px 60px 1fr" },
            gap: 1.5,
            alignItems: "center",
            minHeight: { xs: 56, md: 34 },
            borderBottom: `1px solid ${grey.hairline}`,
          }}
        >
          <Typography
            variant="body2"
            title={a.name}
            sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
          >
            <b>{a.code}</b> {a.name}
          </Typography>
          <Box sx={figure}>{pans ? "" : `${a.ml.toFixed(2)} ml`}</Box>
          <Box>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Box
                sx={{
                  height: 8,
                  width: `${Math.max(2, 50 * (long(a) / longest))}%`,
                  bgcolor: fill(a),
                  borderRadius: "4px",
                }}
              />
              <span style={{ fontFamily: figures, fontSize: 12, whiteSpace: "nowrap" }}>
                {a.loads > 0 ? `${a.loads} brush loads` : `${a.ribbonMm} mm`}
              </span>
            </Box>
            {a.short && (
              <Typography variant="caption">the tube holds {a.tubeMl} ml: not enough</Typography>
            )}
          </Box>
        </Box>
      ))}
      <MayAsk of={plan.amounts} />
      {plan.apart && (
        <Typography variant="body2" sx={{ mt: 1.5 }}>
          {plan.apart}
        </Typography>
      )}
      {ownPace(plan) && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          {ownPace(plan)}
        </Typography>
      )}
    </Box>
  );
}

/** What is done, one after the other; the chosen place opened. */
export function InOrder({
  plan,
  chosen,
  onChoose,
  onMove,
}: {
  plan: BenchPlan;
  chosen: number;
  onChoose: (region: number) => void;
  onMove: (region: number, to: number) => void;
}) {
  const { fill } = useColours();
  const { mm } = useMeasure(plan.medium);
  const open = useRef<HTMLLIElement>(null);
  useEffect(() => {
    void open.current?.scrollIntoView({ block: "nearest" }); // newer browsers answer with a promise
  }, [chosen]);
  return (
    <Box component="ol" aria-label="in order" sx={{ m: 0, p: 0, listStyle: "none" }}>
      {plan.order.map((region, place) => {
        const r = plan.regions[region]!;
        const own = plan.actions.filter((a) => a.region === region);
        const paint = own.find((a) => a.kind === "paint")!;
        const notes = own.filter((a) => a.kind === "wash" || a.kind === "wait");
        const mixed = own.find((a) => a.kind === "mix");
        return (
          <Box
            component="li"
            key={r.id}
            ref={region === chosen ? open : undefined}
            sx={{ borderBottom: `1px solid ${grey.hairline}` }}
          >
            {notes.map((a) => (
              <Typography key={a.kind} variant="caption" component="div" sx={{ pl: 5.5 }}>
                {a.kind === "wait" ? "Wait" : a.thorough ? "Wash thoroughly" : "Wash"}
                {plan.settings.brushes === 2 && a.kind === "wash" && ` brush ${a.brush}`}
                {a.kind === "wait" && ` ${minutes(Math.ceil(a.end - a.start))}`}: {a.because}
              </Typography>
            ))}
            <Box
              component="button"
              onClick={() => onChoose(region)}
              aria-expanded={region === chosen}
              sx={{
                all: "unset",
                boxSizing: "border-box",
                cursor: "pointer",
                width: "100%",
                minHeight: { xs: 56, md: 34 },
                display: "grid",
                gridTemplateColumns: "28px 28px 1fr auto",
                gap: 1,
                alignItems: "center",
                "&:focus-visible": { outline: `2px solid ${grey.ink}` },
              }}
            >
              <Box sx={{ ...figure, color: grey.third }}>{place + 1}</Box>
              <Box sx={{ height: 22, bgcolor: fill(r) }} />
              <Typography variant="body2" component="span">
                <b>{r.label}</b> {r.parents}
              </Typography>
              <Box sx={{ ...figure, fontSize: 12 }}>
                {clock(paint.start)}
                {mixed && `, well ${mixed.well}`}
                {plan.settings.brushes === 2 && `, brush ${paint.brush}`}
              </Box>
            </Box>
            {region === chosen && (
              <Box sx={{ pl: 5.5, pb: 1.5 }}>
                {mixed?.because && <Typography variant="body2">{mixed.because}</Typography>}
                <CountedOut counted={r.counted} mm={mm} />
                <InTubes of={r} />
                {r.thin && <Typography variant="caption">{r.thin}</Typography>}
                <Box
                  sx={{
                    display: "flex",
                    gap: 2,
                    "& button": { px: 0, minHeight: { xs: 56, md: 30 } },
                  }}
                >
                  <Button
                    color="inherit"
                    size="small"
                    disabled={place === 0}
                    onClick={() => onMove(region, place - 1)}
                  >
                    paint it earlier
                  </Button>
                  <Button
                    color="inherit"
                    size="small"
                    disabled={place === plan.order.length - 1}
                    onClick={() => onMove(region, place + 1)}
                  >
                    paint it later
                  </Button>
                </Box>
              </Box>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

const tools = { compass: "compass", ruler: "ruler", protractor: "protractor" } as const;

/** How to draw the sheet by one of three tools, as steps and as a figure. */
export function Drawing({ plan }: { plan: BenchPlan }) {
  const [by, setBy] = useState<Schemas["DrawBy"]>("compass");
  const d = plan.drawings.find((one) => one.by === by) ?? plan.drawings[0];
  if (!d) return null;
  if (plan.kind !== "wheel")
    return (
      <Box component="section" aria-label="how to draw it">
        <HowToMix steps={d.steps} label="how to draw it, in order" />
      </Box>
    );
  const half = plan.width / 2;
  return (
    <Box component="section" aria-label="how to draw it">
      <Tabs label="drawn with" words={tools} value={by} onChoose={setBy} />
      <Box sx={{ display: "flex", flexWrap: { xs: "wrap", sm: "nowrap" }, gap: 2, mt: 1.5 }}>
        <svg
          viewBox={`${-half - 6} ${-half - 6} ${plan.width + 12} ${plan.width + 12}`}
          width={190}
          height={190}
          aria-hidden
          style={{ flex: "none" }}
        >
          {d.square > 0 && (
            <rect
              x={-d.square / 2}
              y={-d.square / 2}
              width={d.square}
              height={d.square}
              fill="none"
              stroke={grey.mark}
              strokeWidth={half / 120}
            />
          )}
          {d.circles.map((r) => (
            <circle key={r} r={r} fill="none" stroke={grey.ink} strokeWidth={half / 90} />
          ))}
          {d.points.map(([x, y], i) => (
            <g key={i}>
              <path d={`M${x} ${y} L0 0`} stroke={grey.hairline} strokeWidth={half / 150} />
              <circle cx={x} cy={y} r={half / 40} fill={grey.ink} />
            </g>
          ))}
        </svg>
        <HowToMix steps={d.steps} label="how to draw it, in order" />
      </Box>
    </Box>
  );
}

/** The ways to fill each section side by side. */
export function WaysToFill({
  plan,
  first,
  onFill,
  onFirst,
}: {
  plan: BenchPlan;
  /** The section that is painted before the others. */
  first?: number;
  onFill: (fill: Schemas["Fill"]) => void;
  onFirst: (section: number) => void;
}) {
  if (plan.sections.length === 0)
    return (
      <Typography variant="body2">
        No section of this wheel runs between two paints alone.
      </Typography>
    );
  const head = ["way", "begin with", "smallest addition", "wells", "a slip costs"];
  return (
    <Box component="section" aria-label="ways to fill a section" sx={{ overflowX: "auto" }}>
      {plan.sections.map((s) => (
        <Box key={s.section} sx={{ mb: 2 }}>
          <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
            <Typography sx={{ fontWeight: 600 }}>
              {s.from} to {s.to}
            </Typography>
            {plan.sections.length > 1 && (
              <Button
                size="small"
                color="inherit"
                disabled={first === s.section}
                sx={{ px: 0, minHeight: { xs: 56, md: 28 } }}
                onClick={() => onFirst(s.section)}
              >
                {first === s.section ? "painted first" : "paint it first"}
              </Button>
            )}
          </Box>
          <Box
            component="table"
            sx={{
              width: "100%",
              borderCollapse: "collapse",
              fontSize: 13,
              "& td, & th": {
                textAlign: "left",
                py: 0.5,
                pr: 1,
                borderTop: `1px solid ${grey.hairline}`,
                fontWeight: 400,
              },
            }}
          >
            <thead>
              <tr>
                {head.map((h) => (
                  <th key={h} scope="col" style={{ color: grey.third }}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {s.ways.map((w) => (
                <tr key={w.fill}>
                  <th scope="row">
                    <Button
                      size="small"
                      color="inherit"
                      sx={{
                        px: 0,
                        textAlign: "left",
                        fontWeight: w.fill === plan.fill ? 700 : 400,
                        minHeight: { xs: 56, md: 28 },
                      }}
                      onClick={() => onFill(w.fill)}
                    >
                      {fillWords[w.fill]}
                    </Button>
                  </th>
                  <td>{w.startMl.toFixed(2)} ml</td>
                  <td>
                    {w.takes}
                    {w.letDown && ", of a let-down"}
                  </td>
                  <td>{w.wells}</td>
                  <td>{w.slipMl.toFixed(2)} ml</td>
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      ))}
      <Typography variant="caption">
        A slip is an addition 30 % too large; it costs what must be added to come back. What is used
        up in the end is the same, and none needs a wash within the section.
      </Typography>
    </Box>
  );
}
