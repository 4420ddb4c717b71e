import type { Theme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useRef, useState, type PointerEvent } from "react";
import type { BenchPlan } from "../api/client";
import { useColours } from "../drawing/screen";
import { figures, grey, text } from "../drawing/style";
import { slotName } from "../parts/naming";
import { usePhone } from "../parts/usePhone";
import { clock } from "./words";

const top = 8;

/**
 * The hour: each region a wedge, thick while it is wet, thinning to a thread as it dries; below it
 * the washes. A wedge is drawn to another place with a pointer or the arrow keys.
 */
export function HourFigure({
  plan,
  chosen,
  onChoose,
  onMove,
}: {
  plan: BenchPlan;
  chosen: number;
  onChoose: (region: number) => void;
  /** To another place in the order. */
  onMove: (region: number, to: number) => void;
}) {
  const { fill } = useColours();
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const { phone, wide } = usePhone();
  const width = phone ? wide : narrow ? 620 : 1140;
  const lane = phone ? 48 : narrow ? 56 : 15;
  const stage = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ region: number; x: number; from: number } | null>(null);
  const painted = plan.actions.filter((a) => a.kind === "paint");
  const ends = painted.map((a) => Math.max(a.dry, a.end));
  const last = Math.max(plan.totalMinutes, plan.allDryMinutes > 600 ? 0 : plan.allDryMinutes, 1);
  const x = (m: number) => (m / last) * (width - 12) + 4;
  const lanes: number[] = [];
  const rows = painted.map((a, i) => {
    const free = lanes.findIndex((until) => until <= a.start);
    const row = free < 0 ? lanes.length : free;
    lanes[row] = Math.min(ends[i]!, last) + last / 40;
    return row;
  });
  const height = top + lanes.length * lane + 34;
  const floor = top + lanes.length * lane;
  const every = [1, 2, 5, 10, 15, 30, 60].find((e) => last / e <= width / 80) ?? 120;

  const at = (e: PointerEvent) => {
    const box = stage.current!.getBoundingClientRect();
    return ((e.clientX - box.left) / box.width) * width;
  };
  const drop = (e: PointerEvent) => {
    if (!drag) return;
    const by = at(e) - drag.from;
    setDrag(null);
    if (Math.abs(by) < 6) return onChoose(drag.region);
    const place = plan.order.indexOf(drag.region);
    const begun = painted[place]!.start + (by / (width - 12)) * last;
    const to = painted.filter((a, i) => i !== place && a.start <= begun).length;
    onMove(drag.region, to);
  };
  return (
    <svg
      ref={stage}
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="group"
      aria-label="the hour: what is wet until when"
      fontFamily={text}
      style={{ display: "block", touchAction: "pan-y" }}
      onPointerMove={(e) => drag && setDrag({ ...drag, x: at(e) })}
      onPointerUp={drop}
      onPointerCancel={() => setDrag(null)}
    >
      {Array.from({ length: Math.floor(last / every) + 1 }, (_, i) => (
        <g key={i}>
          <path d={`M${x(i * every)} ${top - 6} V${floor + 16}`} stroke={grey.track} />
          <text
            x={x(i * every)}
            y={height - 3}
            fontSize={phone ? 12.5 : 11}
            fontFamily={figures}
            fill={grey.third}
          >
            {clock(i * every)}
          </text>
        </g>
      ))}
      {painted.map((a, i) => {
        const r = plan.regions[a.region]!;
        const y = top + rows[i]! * lane + lane / 2;
        const begun = x(a.start) + (drag?.region === a.region ? drag.x - drag.from : 0);
        const end = begun + x(Math.min(ends[i]!, last)) - x(a.start);
        const place = plan.order.indexOf(a.region);
        return (
          <g
            key={r.id}
            role="slider"
            tabIndex={0}
            aria-label={`${r.label}, painted at ${clock(a.start)}${a.dry > a.end ? `, dry at ${clock(a.dry)}` : ""}`}
            aria-valuenow={place + 1}
            aria-valuemin={1}
            aria-valuemax={plan.order.length}
            data-wedge={r.id}
            style={{ cursor: drag ? "grabbing" : "grab", outlineOffset: 0 }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              const from = at(e);
              setDrag({ region: a.region, x: from, from });
            }}
            onKeyDown={(e) => {
              const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
              if (by) {
                e.preventDefault();
                onMove(a.region, place + by);
              } else if (e.key === "Enter") onChoose(a.region);
            }}
          >
            <title>{`${r.label}: painted at ${clock(a.start)}`}</title>
            <rect
              x={begun}
              y={y - lane / 2}
              width={Math.max(end - begun, 24)}
              height={lane}
              fill="transparent"
            />
            <path
              d={`M${begun} ${y - 5.5} H${begun + (x(a.end) - x(a.start))} L${end} ${y - 0.6} V${y + 0.6} L${begun + (x(a.end) - x(a.start))} ${y + 5.5} H${begun} Z`}
              fill={fill(r)}
              stroke={a.region === chosen ? grey.ink : grey.mark}
              strokeWidth={a.region === chosen ? 1.5 : 0.8}
            />
            {begun + 4 < width - 60 && end - begun > 70 && (
              <text
                x={begun + x(a.end) - x(a.start) + 6}
                y={y + 4}
                fontSize={phone ? 12.5 : 11}
                fill={grey.ink}
                stroke={grey.paper}
                strokeWidth={3}
                paintOrder="stroke"
                strokeLinejoin="round"
              >
                {slotName(r.label)}
              </text>
            )}
          </g>
        );
      })}
      {plan.actions
        .filter((a) => a.kind === "wash" || a.kind === "water")
        .map((a, i) => (
          <g key={i}>
            <title>{`${clock(a.start)}: ${a.kind === "water" ? "change the water" : a.thorough ? "wash thoroughly" : "wash"}. ${a.because}`}</title>
            <rect
              x={x(a.start)}
              y={floor + 3}
              width={a.kind === "water" ? 5 : a.thorough ? 3.5 : 2}
              height={12}
              fill={grey.ink}
            />
          </g>
        ))}
    </svg>
  );
}
