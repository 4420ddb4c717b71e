import { useState, type SVGProps } from "react";
import type { BenchRegion, Sitting } from "../api/client";
import { Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { Fade } from "../drawing/Fade";
import { useColours } from "../drawing/screen";
import { shortName, SlotName } from "../drawing/SlotName";
import { figures, grey, text } from "../drawing/style";
import { slotName } from "../parts/naming";
import { centreOf, originOf, scaleOf } from "../parts/sheet";
import { usePhone } from "../parts/usePhone";
import { timeOf } from "./steps";

/**
 * The sheet as far as it has come: what is dry is full, what is wet has a sheen and a band at its edge
 * that thins as it dries, what is next is lifted, what is to come is an outline.
 */
export function SittingFigure({
  sitting,
  now,
  next,
  chosen,
  onChoose,
}: {
  sitting: Sitting;
  now: number;
  next: number;
  chosen: number;
  onChoose: (region: number) => void;
}) {
  const { fill } = useColours();
  const { phone, type } = usePhone();
  const [focused, setFocused] = useState(-1);
  const { plan, places } = sitting;
  const round = plan.kind === "wheel";
  const scale = scaleOf(plan);
  const [x0, y0] = originOf(plan, scale);
  const done = places.filter((p) => p.coats > 0).length;
  const names = new Map<string, BenchRegion[]>();
  for (const r of plan.regions) {
    if (!r.main) continue;
    const name = slotName(r.label);
    names.set(name, [...(names.get(name) ?? []), r]);
  }
  const lifted = chosen >= 0 ? chosen : next;
  return (
    <svg
      viewBox={phone && round ? "-216 -206 432 412" : "-270 -206 540 412"}
      width="100%"
      role="group"
      aria-label="the sheet, as far as it is painted"
      style={{ display: "block" }}
      fontFamily={text}
    >
      <defs>
        <pattern
          id="sheen"
          width={7}
          height={7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={1.6} height={7} fill="#fff" fillOpacity={0.4} />
        </pattern>
      </defs>
      {plan.regions.map((r, i) => {
        const at = places[i]!;
        const wet = at.coats > 0 && at.dry > now;
        const says = at.coats
          ? wet
            ? `${at.ran ? "run into" : "painted"}, wet until ${timeOf(at.dry)}`
            : at.ran
              ? "run into, dry"
              : "painted, dry"
          : at.skipped
            ? "skipped"
            : i === next
              ? "next"
              : "to come";
        const look = wet ? "wet" : "dried";
        const laid = (as: "wet" | "dried") => (at.drawn ? `url(#${as}-${i})` : fill(at[as]));
        const shape = (more: Drawn, inset = 0) => (
          <Place r={r} plan={plan} scale={scale} inset={inset} {...more} />
        );
        return (
          <g
            key={r.id}
            role="button"
            tabIndex={0}
            aria-label={`${r.label}: ${says}`}
            aria-pressed={i === chosen}
            data-place={r.id}
            data-coats={at.coats}
            data-wet={wet}
            onClick={() => onChoose(i)}
            onKeyDown={(e) => {
              if (e.key !== "Enter" && e.key !== " ") return;
              e.preventDefault();
              onChoose(i);
            }}
            style={{ cursor: "pointer", outline: "none" }}
            onFocus={(e) => setFocused(e.currentTarget.matches(":focus-visible") ? i : -1)}
            onBlur={() => setFocused(-1)}
          >
            <title>{`${r.label}: ${says}`}</title>
            {at.drawn &&
              (["wet", "dried"] as const).map((as) => (
                <Fade
                  key={as}
                  id={`${as}-${i}`}
                  centre={centreOf(plan, r, scale)}
                  inner={r.shape.inner * scale}
                  outer={r.shape.outer * scale}
                  drawn={at.drawn![as]}
                />
              ))}
            {shape({
              fill: at.coats ? laid(look) : "transparent",
              stroke: i === focused || i === lifted ? grey.ink : at.coats ? "none" : grey.mark,
              strokeWidth: i === focused || i === lifted ? 2.5 : 1,
              strokeDasharray: at.skipped ? "3 4" : i === focused ? "6 4" : undefined,
            })}
            {wet && shape({ fill: "url(#sheen)" })}
            {!at.coats && i === lifted && shape({ fill: laid("wet") }, 0.16)}
            {wet && (
              <Band r={r} plan={plan} scale={scale} left={(at.dry - now) / (at.dry - at.painted)} />
            )}
          </g>
        );
      })}
      {round &&
        [...names].map(([name, of]) => {
          const middle =
            (Math.min(...of.map((r) => r.shape.from)) + Math.max(...of.map((r) => r.shape.to))) / 2;
          const [x, y] = point(x0, y0, (plan.width / 2) * scale + 18, middle);
          const bold = of.some((r) => plan.regions[lifted]?.id === r.id);
          return (
            <g key={name} aria-hidden>
              <SlotName
                name={phone ? shortName(name) : name}
                size={type(14, 432, 1, 245)}
                x={x}
                y={y + 5}
                anchor={Math.abs(x) < 20 ? "middle" : x > 0 ? "start" : "end"}
                weight={bold ? 600 : 400}
              />
            </g>
          );
        })}
      {round && !plan.regions.some((r) => r.id.startsWith("neutral/")) && (
        <g textAnchor="middle" fill={grey.ink} transform={`translate(${x0} ${y0})`}>
          <text y={-2} fontSize={30} fontFamily={figures}>
            {done}
            <tspan fill={grey.mark}> of {places.length}</tspan>
          </text>
          {!sitting.done && !sitting.ended && (
            <text y={phone ? 26 : 22} fontSize={type(13, 432, 1, 245)} fill={grey.third}>
              {phone ? "till" : "done about"} {timeOf(sitting.now + plan.totalMinutes * 60000)}
            </text>
          )}
        </g>
      )}
    </svg>
  );
}

type Plan = Sitting["plan"];
type Drawn = Pick<SVGProps<SVGPathElement>, "fill" | "stroke" | "strokeWidth" | "strokeDasharray">;

/** One region, drawn in by a share of its depth. */
function Place({
  r,
  plan,
  scale,
  inset,
  ...path
}: { r: BenchRegion; plan: Plan; scale: number; inset: number } & Drawn) {
  const s = r.shape;
  const [x0, y0] = originOf(plan, scale);
  if (s.to > s.from) {
    const deep = (s.outer - s.inner) * inset;
    const turn = (s.to - s.from) * inset;
    return (
      <Sector
        {...path}
        centre={centreOf(plan, r, scale)}
        inner={(s.inner + deep) * scale}
        outer={(s.outer - deep) * scale}
        from={s.from + turn}
        to={s.to - turn}
        gap={1.5}
      />
    );
  }
  const [x, y, w, h] =
    s.w > 0
      ? [s.x + s.w * inset, s.y + s.h * inset, s.w * (1 - 2 * inset), s.h * (1 - 2 * inset)]
      : [s.x, s.y, s.outer * (1 - inset), 0];
  const d =
    s.w > 0
      ? `M${x0 + x * scale + 0.75} ${y0 + y * scale} h${w * scale - 1.5} v${h * scale} h${-(w * scale - 1.5)} Z`
      : `M${x0 + (x - w) * scale} ${y0 + y * scale} a${w * scale} ${w * scale} 0 1 0 ${2 * w * scale} 0 a${w * scale} ${w * scale} 0 1 0 ${-2 * w * scale} 0 Z`;
  return <path {...path} d={d} />;
}

/** What is wet of it: a band outside of the edge, as thick as is left of the drying. */
function Band({
  r,
  plan,
  scale,
  left,
}: {
  r: BenchRegion;
  plan: Plan;
  scale: number;
  left: number;
}) {
  const s = r.shape;
  const [x0, y0] = originOf(plan, scale);
  const thick = 1 + 7 * Math.max(0, Math.min(1, left));
  if (s.to > s.from)
    return (
      <Sector
        centre={centreOf(plan, r, scale)}
        inner={s.outer * scale + 3}
        outer={s.outer * scale + 3 + thick}
        from={s.from + 1}
        to={s.to - 1}
        fill={grey.ink}
      />
    );
  if (s.w > 0)
    return (
      <rect
        x={x0 + s.x * scale}
        y={y0 + s.y * scale - 3 - thick}
        width={s.w * scale}
        height={thick}
        fill={grey.ink}
      />
    );
  return (
    <circle
      cx={x0 + s.x * scale}
      cy={y0 + s.y * scale}
      r={s.outer * scale + 2}
      fill="none"
      stroke={grey.ink}
      strokeWidth={thick / 2}
    />
  );
}
