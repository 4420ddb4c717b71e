import type { KeyboardEvent, PointerEvent } from "react";
import { grey, text } from "../drawing/style";
import { Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { useColours } from "../drawing/screen";
import { usePhone } from "../parts/usePhone";
import { angleOf, bins, outline, outlines, type Comparison } from "./shapes";

const size = 416;
const c = size / 2;
const [inner, outer] = [46, 146];
const names = [
  ["yellow", 120],
  ["orange", 60],
  ["red", 0],
  ["violet", 300],
  ["blue", 240],
  ["green", 180],
] as const;

/** How the ground of the system that is brought forward is hatched, one for each. */
const hatches = [
  { turn: 45, dash: undefined },
  { turn: -45, dash: "4 3" },
  { turn: 0, dash: "0.1 7" },
  { turn: 90, dash: undefined },
] as const;

/** Where one of two systems is better off: wide where it is cleaner, narrow where it is only brighter. */
const bands = (d: Comparison["differences"][number]) => [
  { runs: d.first, side: 0, wide: true },
  { runs: d.second, side: 1, wide: true },
  { runs: d.firstBrighter, side: 0, wide: false },
  { runs: d.secondBrighter, side: 1, wide: false },
];

/** The reaches of all systems laid over each other, outward is brighter; point at a hue, or walk round with the keys. */
export function Overlay({
  got,
  bin,
  forward,
  pair,
  onBin,
}: {
  got: Comparison;
  bin: number;
  forward: number | null;
  pair: number;
  onBin: (bin: number) => void;
}) {
  const { fill } = useColours();
  const { phone, type } = usePhone();
  const place = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const [x, y] = [
      ((e.clientX - box.left) / box.width) * size - c,
      ((e.clientY - box.top) / box.height) * size - c,
    ];
    if (Math.hypot(x, y) < 12) return;
    const clockwise = (Math.atan2(x, -y) * 180) / Math.PI;
    onBin(Math.floor(((((120 - clockwise) % 360) + 360) % 360) / (360 / bins)) % bins);
  };
  const keys = (e: KeyboardEvent) => {
    // Right goes clockwise, down the painter's circle.
    const by = (
      { ArrowRight: -1, ArrowDown: -1, ArrowLeft: 1, ArrowUp: 1 } as Record<string, number>
    )[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    onBin((bin + by + bins) % bins);
  };
  const clean = inner + got.cleanFrom * (outer - inner);
  const difference = got.differences[pair];
  const said = got.systems
    .map((s) => `${s.name} ${s.reach[bin]!.toFixed(2)} ${s.verdicts[bin]}`)
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width="100%"
      style={{ maxWidth: 416, display: "block", touchAction: "none", cursor: "crosshair" }}
      fontFamily={text}
      role="slider"
      tabIndex={0}
      aria-label="hue that is read in all systems"
      aria-valuemin={0}
      aria-valuemax={bins - 1}
      aria-valuenow={bin}
      aria-valuetext={`${got.hues[bin]}: ${said}`}
      onKeyDown={keys}
      onPointerMove={place}
      onPointerDown={place}
    >
      <defs>
        {hatches.map(({ turn, dash }, i) => (
          <pattern
            key={i}
            id={`hatch-${i}`}
            width={7}
            height={7}
            patternUnits="userSpaceOnUse"
            patternTransform={`rotate(${turn})`}
          >
            <path
              d="M0 3.5 H7"
              stroke={grey.mark}
              strokeWidth={1.2}
              strokeDasharray={dash}
              strokeLinecap="round"
            />
          </pattern>
        ))}
      </defs>
      <circle cx={c} cy={c} r={outer} fill="none" stroke={grey.hairline} />
      {got.systems.map((s, i) => (
        <path
          key={i}
          d={outline(s.reach, c, inner, outer)}
          fill={grey.track}
          fillOpacity={0.5}
          stroke="none"
        />
      ))}
      {forward !== null && got.systems[forward] && (
        <path
          data-forward={forward}
          d={outline(got.systems[forward].reach, c, inner, outer)}
          fill={`url(#hatch-${forward})`}
          stroke="none"
        />
      )}
      <circle cx={c} cy={c} r={clean} fill="none" stroke={grey.mark} strokeDasharray="1 3" />
      {got.systems.map((s, i) => (
        <path
          key={i}
          data-outline={i}
          d={outline(s.reach, c, inner, outer + 1.5 - 1.5 * i)}
          fill="none"
          stroke={grey.ink}
          strokeWidth={forward === i ? 3 : 1.9}
          strokeDasharray={outlines[i]!.dash}
          strokeLinecap={outlines[i]!.cap}
          strokeLinejoin="round"
        />
      ))}
      {difference &&
        bands(difference).map(({ runs, side, wide }) =>
          runs.map((r) => (
            <Sector
              key={`${side} ${r.from}`}
              data-difference={side}
              centre={[c, c]}
              inner={outer + 7}
              outer={outer + (wide ? 13 : 10)}
              from={angleOf(r.to + 0.5)}
              to={angleOf(r.from - 0.5)}
              fill={side === 0 ? grey.ink : grey.paper}
              stroke={grey.ink}
              strokeWidth={1}
            >
              <title>{difference.says}</title>
            </Sector>
          )),
        )}
      <circle cx={c} cy={c} r={inner} fill={grey.paper} stroke={grey.hairline} />
      <text x={c} y={c - 4} textAnchor="middle" fontSize={type(12, size, 1, 416)} fill={grey.third}>
        outward
      </text>
      <text
        x={c}
        y={c + (phone ? 14 : 11)}
        textAnchor="middle"
        fontSize={type(12, size, 1, 416)}
        fill={grey.third}
      >
        is brighter
      </text>
      <path
        d={`M${point(c, c, inner, angleOf(bin)).join(" ")} L${point(c, c, outer + 14, angleOf(bin)).join(" ")}`}
        stroke={grey.ink}
        strokeWidth={1.2}
      />
      {got.systems.map((s, i) => {
        const [x, y] = point(c, c, inner + s.reach[bin]! * (outer - inner), angleOf(bin));
        return (
          <circle
            key={i}
            cx={x}
            cy={y}
            r={4}
            fill={s.shades[bin]!.srgb ? fill(s.shades[bin]!) : grey.paper}
            stroke={grey.ink}
            strokeWidth={1.4}
          />
        );
      })}
      {names.map(([name, w]) => {
        const [x, y] = point(c, c, outer + 26, 120 - w);
        return (
          <text
            key={name}
            x={x}
            y={y + 4}
            textAnchor={Math.abs(x - c) < 20 ? "middle" : x > c ? "start" : "end"}
            fontSize={type(13, size, 1, 416)}
            fill={grey.ink}
          >
            {name}
          </text>
        );
      })}
    </svg>
  );
}
