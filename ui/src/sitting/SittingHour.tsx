import type { Theme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import type { Sitting } from "../api/client";
import { useColours } from "../drawing/screen";
import { figures, grey, text } from "../drawing/style";
import { slotName } from "../parts/naming";
import { usePhone } from "../parts/usePhone";
import { timeOf } from "./steps";

const top = 8;
const minute = 60000;

/** The hour as it was and will be: what is painted in full colour, what is planned faint, the line is now. */
export function SittingHour({ sitting, now }: { sitting: Sitting; now: number }) {
  const { fill } = useColours();
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const { phone, wide } = usePhone();
  const width = phone ? wide : narrow ? 660 : 1140;
  const { plan, places } = sitting;
  const painted = places
    .map((p, i) => ({
      region: i,
      start: p.painted,
      end: p.painted,
      dry: p.dry,
      done: true,
      coats: p.coats,
    }))
    .filter((p) => p.coats > 0);
  const planned = plan.actions
    .filter((a) => a.kind === "paint")
    .map((a) => ({
      region: a.region,
      start: sitting.now + a.start * minute,
      end: sitting.now + a.end * minute,
      dry: sitting.now + Math.max(a.dry, a.end) * minute,
      done: false,
      coats: 0,
    }));
  const began = Date.parse(sitting.began);
  const all = [...painted, ...planned].sort((a, b) => a.start - b.start);
  const short = all.filter((a) => a.dry - a.end < 600 * minute);
  const last = Math.max(now, ...all.map((a) => a.end), ...short.map((a) => a.dry)) - began;
  // After a night only what is of today is drawn.
  const from = now - began > 8 * 60 * minute ? now - 60 * minute : began;
  const span = Math.max(last + began - from, 5 * minute);
  const x = (t: number) => 4 + (Math.max(0, t - from) / span) * (width - 12);
  const lanes: number[] = [];
  const seen = all.filter((a) => Math.max(a.dry, a.end) >= from);
  const rows = seen.map((a) => {
    const free = lanes.findIndex((until) => until <= a.start);
    const row = free < 0 ? lanes.length : free;
    lanes[row] = Math.min(Math.max(a.dry, a.end), from + span) + span / 40;
    return row;
  });
  const lane = 15;
  const floor = top + Math.max(lanes.length, 1) * lane;
  return (
    <svg
      viewBox={`0 0 ${width} ${floor + 34}`}
      width="100%"
      role="img"
      aria-label="the hour: what was painted, what is wet, what is to come"
      fontFamily={text}
      style={{ display: "block" }}
    >
      {seen.map((a, i) => {
        const y = top + rows[i]! * lane + lane / 2;
        const place = places[a.region]!;
        const [begin, end] = [x(a.start), Math.max(x(Math.min(a.dry, from + span)), x(a.end) + 3)];
        const r = plan.regions[a.region]!;
        return (
          <g key={r.id}>
            <path
              d={`M${begin} ${y - 5.5} L${x(a.end)} ${y - 5.5} L${end} ${y - 0.6} V${y + 0.6} L${x(a.end)} ${y + 5.5} H${begin} Z`}
              fill={fill(a.done ? place.wet : place.dried)}
              fillOpacity={a.done ? 1 : 0.4}
              stroke={grey.mark}
              strokeWidth={0.8}
            />
            {!a.done && end - begin > 60 && (
              <text x={x(a.end) + 4} y={y + 4} fontSize={phone ? 12.5 : 11} fill={grey.ink}>
                {slotName(r.label)}
              </text>
            )}
          </g>
        );
      })}
      {plan.actions
        .filter((a) => a.kind === "wash" || a.kind === "water")
        .map((a, i) => (
          <rect
            key={i}
            x={x(sitting.now + a.start * minute)}
            y={floor + 2}
            width={a.kind === "water" ? 5 : a.thorough ? 3.5 : 2}
            height={12}
            fill={grey.ink}
          />
        ))}
      <path d={`M${x(now)} 0 V${floor + 18}`} stroke={grey.ink} strokeWidth={1.5} />
      <text
        x={Math.min(x(now) + 5, width - 44)}
        y={floor + 28}
        fontSize={13}
        fontFamily={figures}
        fill={grey.ink}
      >
        {timeOf(now)}
      </text>
    </svg>
  );
}
