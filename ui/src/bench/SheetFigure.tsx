import { useState } from "react";
import type { BenchPlan, BenchRegion } from "../api/client";
import { Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { Fade } from "../drawing/Fade";
import { useColours } from "../drawing/screen";
import { centreOf, originOf, scaleOf } from "../parts/sheet";
import { shortName, SlotName } from "../drawing/SlotName";
import { figures, grey, text } from "../drawing/style";
import { slotName, washes } from "../parts/naming";
import { usePhone } from "../parts/usePhone";
import { minutes } from "./words";

/** The sheet with its regions numbered in the order in which they are painted. */
export function SheetFigure({
  plan,
  chosen,
  onChoose,
}: {
  plan: BenchPlan;
  chosen: number;
  onChoose: (region: number) => void;
}) {
  const { fill } = useColours();
  const { phone, type } = usePhone();
  const [focused, setFocused] = useState(-1);
  const round = plan.kind === "wheel";
  const scale = scaleOf(plan);
  const [left, top] = originOf(plan, scale);
  const names = new Map<number, string>();
  plan.regions.forEach((r) => r.main && names.set(r.index, slotName(r.label)));
  const turn = plan.regions.find((r) => r.main)?.shape;
  const number = new Map(plan.order.map((region, i) => [region, i + 1]));
  return (
    <svg
      viewBox={phone && round ? "-216 -206 432 412" : "-270 -206 540 412"}
      width="100%"
      role="group"
      aria-label="the sheet, numbered in the order of painting"
      style={{ display: "block", maxHeight: 430 }}
      fontFamily={text}
    >
      <defs>
        {plan.regions.map(
          (r, i) =>
            r.drawn && (
              <Fade
                key={r.id}
                id={`graded-${i}`}
                centre={centreOf(plan, r, scale)}
                inner={r.shape.inner * scale}
                outer={r.shape.outer * scale}
                drawn={r.drawn}
              />
            ),
        )}
      </defs>
      {plan.regions.map((r, i) => (
        <g
          key={r.id}
          role="button"
          tabIndex={0}
          aria-label={`${number.get(i)} ${r.label}, ${r.parents}`}
          aria-pressed={i === chosen}
          data-region={r.id}
          onClick={() => onChoose(i)}
          onKeyDown={(e) => {
            if (e.key === "Enter" || e.key === " ") {
              e.preventDefault();
              onChoose(i);
            }
          }}
          style={{ cursor: "pointer", outline: "none" }}
          onFocus={(e) => setFocused(e.currentTarget.matches(":focus-visible") ? i : -1)}
          onBlur={() => setFocused(-1)}
        >
          <title>{`${r.label}: ${r.parents}`}</title>
          {r.shape.to > r.shape.from ? (
            <Sector
              centre={centreOf(plan, r, scale)}
              inner={r.shape.inner * scale}
              outer={r.shape.outer * scale}
              from={r.shape.from}
              to={r.shape.to}
              gap={1.5}
              fill={r.drawn ? `url(#graded-${i})` : fill(r)}
              stroke={i === chosen || i === focused ? grey.ink : "none"}
              strokeDasharray={i === chosen ? undefined : "6 4"}
              strokeWidth={3}
            />
          ) : r.shape.w > 0 ? (
            <rect
              x={left + r.shape.x * scale + 0.75}
              y={top + r.shape.y * scale}
              width={r.shape.w * scale - 1.5}
              height={r.shape.h * scale}
              fill={fill(r)}
              stroke={i === chosen || i === focused ? grey.ink : "none"}
              strokeDasharray={i === chosen ? undefined : "6 4"}
              strokeWidth={3}
            />
          ) : (
            <circle
              cx={left + r.shape.x * scale}
              cy={top + r.shape.y * scale}
              r={r.shape.outer * scale}
              fill={fill(r)}
              stroke={i === chosen || i === focused ? grey.ink : "none"}
              strokeDasharray={i === chosen ? undefined : "6 4"}
              strokeWidth={3}
            />
          )}
          <Number
            at={middle(plan, r.seen, scale)}
            n={number.get(i)!}
            size={numbered(
              type(r.main ? 14 : 9, round ? 432 : 540, 1, 450),
              most(r.seen) * scale,
              phone,
            )}
          />
        </g>
      ))}
      {plan.regions.map(
        (r) =>
          r.seen.w * scale > 44 &&
          r.seen.h * scale > 50 && (
            <text
              key={r.id}
              pointerEvents="none"
              x={left + (r.seen.x + r.seen.w / 2) * scale}
              y={top + (r.seen.y + r.seen.h) * scale - 8}
              textAnchor="middle"
              fontSize={type(11, 540, 1, 560)}
              aria-hidden
              fill="#161616"
              stroke="#f7f7f7"
              strokeWidth={3}
              strokeLinejoin="round"
              paintOrder="stroke"
            >
              {r.label.length * (0.55 * type(11, 540, 1, 560)) < r.seen.w * scale ? r.label : ""}
            </text>
          ),
      )}
      {round &&
        turn &&
        [...names].map(([index, name]) => {
          const sectors = plan.regions.filter((r) => r.main && r.index === index);
          const from = Math.min(...sectors.map((r) => r.shape.from));
          const to = Math.max(...sectors.map((r) => r.shape.to));
          const [x, y] = point(left, top, (plan.width / 2) * scale + 12, (from + to) / 2);
          return (
            <SlotName
              key={index}
              name={phone ? shortName(name) : name}
              size={type(14, 432, 1, 450)}
              x={x}
              y={y + 5}
              anchor={Math.abs(x) < 20 ? "middle" : x > 0 ? "start" : "end"}
            />
          );
        })}
      {round && !plan.regions.some((r) => r.id.startsWith("neutral/")) && (
        <g textAnchor="middle" fill={grey.ink} transform={`translate(${left} ${top})`}>
          <text y={-4} fontSize={26} fontFamily={figures}>
            {minutes(plan.totalMinutes)}
          </text>
          <text y={16} fontSize={type(13, 432, 1, 450)} fill={grey.third}>
            {washes(plan.washes)}
          </text>
          <text y={36} fontSize={type(12, 432, 1, 450)} fill={grey.third}>
            {plan.width} mm
          </text>
        </g>
      )}
    </svg>
  );
}

function middle(plan: BenchPlan, s: BenchRegion["seen"], scale: number): [number, number] {
  const [left, top] = originOf(plan, scale);
  if (s.w > 0) return [left + (s.x + s.w / 2) * scale, top + (s.y + s.h / 2) * scale];
  if (s.to > s.from) {
    const [x, y] = centreOf(plan, { shape: s }, scale);
    return point(x, y, ((s.inner + s.outer) / 2) * scale, (s.from + s.to) / 2);
  }
  return [left + s.x * scale, top + s.y * scale];
}

/**
 * How large a number is drawn in a place with so much room; 0 for not at all. On a phone nothing is smaller than can
 * be read there: the list names what has no number then.
 */
const numbered = (usual: number, room: number, phone: boolean) => {
  if (phone) return room < 0.7 * usual ? 0 : usual;
  return room < 6 ? 0 : Math.min(usual, room);
};

/** How large a number may be, mm, in a place. */
const most = (s: BenchRegion["seen"]) =>
  s.to > s.from
    ? Math.min(s.outer - s.inner, (((s.inner + s.outer) / 2) * (s.to - s.from) * Math.PI) / 180) *
      0.7
    : s.w > 0
      ? Math.min(s.h * 0.7, s.w * 0.55)
      : s.outer * 1.1;

function Number({ at: [x, y], n, size }: { at: [number, number]; n: number; size: number }) {
  if (size === 0) return null;
  return (
    <text
      x={x}
      y={y + size * 0.36}
      textAnchor="middle"
      fontFamily={figures}
      fontSize={size}
      fill="#161616"
      stroke="#f7f7f7"
      strokeWidth={3}
      strokeLinejoin="round"
      paintOrder="stroke"
      aria-hidden
    >
      {n}
    </text>
  );
}
