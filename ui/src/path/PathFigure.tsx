import type { Theme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { memo, useId, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Pair, Schemas } from "../api/client";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { figures, grey, text } from "../drawing/style";
import { useColours } from "../drawing/screen";
import { usePhone } from "../parts/usePhone";
import { nearest } from "../parts/nearest";
import { placesOf } from "./along";

const edge = 10;
const rows = {
  flags: 44,
  painted: [52, 86],
  under: [98, 202],
  scale: 216,
  traces: [246, 336],
  words: 356,
} as const;

/** Another way that is laid over this one. */
export type Over = { name: string; band: Schemas["BandPoint"][] };

/** How the edges of ways that are laid over are dashed. */
const dashes = ["7 3", "2 3", "11 3 2 3"];

/** The whole figure that an event happened in. */
function figure(e: PointerEvent): SVGSVGElement {
  const at = e.currentTarget as SVGElement;
  return at.ownerSVGElement ?? (at as SVGSVGElement);
}

/** One way at full width: as painted, the undertone as thick as what is left, scale, flags, lightness and chroma. Drag along it. */
export function PathFigure({
  pair,
  taint,
  at,
  flags,
  over,
  onAt,
  onFlag,
}: {
  pair: Pair;
  taint: number;
  at: number;
  flags: number[];
  over: Over[];
  onAt: (at: number) => void;
  onFlag: (i: number, at: number) => void;
}) {
  const hatch = useId();
  const { phone, wide } = usePhone();
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const width = phone ? wide : narrow ? 600 : 820;
  const X = scaleLinear([0, 1], [edge, width - edge]);
  const [held, setHeld] = useState<number | "way" | null>(null);
  const place = (e: PointerEvent) => {
    const box = figure(e).getBoundingClientRect();
    const x = ((e.clientX - box.left) / box.width) * width;
    return Math.max(0, Math.min(1, (x - edge) / (width - 2 * edge)));
  };
  const move = (e: PointerEvent) => {
    if (held === "way") onAt(place(e));
    else if (held !== null) onFlag(held, place(e));
  };
  const take = (e: PointerEvent, what: number | "way") => {
    e.preventDefault();
    e.stopPropagation();
    figure(e).setPointerCapture(e.pointerId);
    setHeld(what);
    if (what === "way") onAt(place(e));
  };
  const step = (e: KeyboardEvent, from: number, set: (at: number) => void) => {
    const by = (
      {
        ArrowRight: 1,
        ArrowUp: 1,
        ArrowLeft: -1,
        ArrowDown: -1,
        PageUp: 8,
        PageDown: -8,
      } as Record<string, number>
    )[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    const i = Math.max(0, Math.min(pair.samples.length - 1, nearest(pair, from) + by));
    set(pair.samples[i]!.at);
  };
  const [, foot] = rows.traces;
  const marks = pair.ratios
    .map(({ a, b, at }) => ({ a, b, x: X(at) }))
    .map((m, i, all) => ({
      ...m,
      room:
        m.x > 22 &&
        m.x < width - 22 &&
        all.every(
          (o, k) => k === i || Math.abs(k - 4) > Math.abs(i - 4) || Math.abs(o.x - m.x) > 34,
        ),
    }));
  const now = pair.samples[nearest(pair, at)]!;
  return (
    <svg
      viewBox={`0 0 ${width} ${rows.words + 12}`}
      width="100%"
      fontFamily={text}
      style={{ display: "block", touchAction: "none" }}
      role="group"
      aria-label={`the way from ${pair.a.name} to ${pair.b.name}`}
      onPointerMove={move}
      onPointerUp={() => setHeld(null)}
      onPointerCancel={() => setHeld(null)}
    >
      <defs>
        <pattern
          id={hatch}
          width={7}
          height={7}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0 V7" stroke={grey.ink} strokeWidth={1.2} />
        </pattern>
        <pattern
          id={`${hatch}d`}
          width={12}
          height={12}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0 V12" stroke={grey.mark} strokeWidth={0.9} />
        </pattern>
      </defs>
      <g onPointerDown={(e) => take(e, "way")} style={{ cursor: "ew-resize" }}>
        <Still pair={pair} taint={taint} over={over} width={width} hatch={hatch} />
      </g>
      <g fontFamily={figures} fontSize={phone ? 12.5 : 12} fill={grey.third} aria-hidden>
        {marks.map(({ a, b, x, room }) => {
          return (
            <g key={`${a}:${b}`}>
              <path d={`M${x} ${rows.under[1]} v5`} stroke={grey.mark} />
              {room && (
                <text x={x} y={rows.scale + 3} textAnchor="middle">
                  {a}:{b}
                </text>
              )}
            </g>
          );
        })}
      </g>
      <g fontSize={phone ? 12.5 : 12} fill={grey.third}>
        <text x={X(0)} y={rows.words}>
          {phone ? "L* solid, C dashed" : "solid: lightness · dashed: chroma · dotted: clean"}
        </text>
        <text x={X(1)} y={rows.words} textAnchor="end">
          hatched:{" "}
          {pair.mudZones.length > 0
            ? phone || width < 700
              ? "muddy, loosely where dull"
              : "muddy, loosely where dull; ruled: its edge in most tubes"
            : pair.dullStretches.length > 0
              ? "dull"
              : "nothing dull"}
        </text>
      </g>
      <g
        role="slider"
        tabIndex={0}
        aria-label="place on the way"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(100 * now.at)}
        aria-valuetext={`${now.parts.map((p) => `${p.parts} ${p.code}`).join(" to ")}, ${now.words}`}
        onKeyDown={(e) => step(e, at, onAt)}
        onPointerDown={(e) => take(e, "way")}
        style={{ cursor: "ew-resize" }}
      >
        <path
          d={`M${X(now.at)} ${rows.painted[0] - 4} V${foot + 4}`}
          stroke={grey.paper}
          strokeWidth={4}
        />
        <path
          d={`M${X(now.at)} ${rows.painted[0] - 4} V${foot + 4}`}
          stroke={grey.ink}
          strokeWidth={1.8}
        />
        <rect
          x={X(now.at) - 12}
          y={rows.painted[0] - 4}
          width={24}
          height={foot - rows.painted[0] + 8}
          fill="transparent"
        />
      </g>
      {flags.map((f, i) => {
        const s = pair.samples[nearest(pair, f)]!;
        const label =
          s.parts.length === 1
            ? s.parts[0]!.code
            : `${s.parts.map((p) => p.parts).join(" : ")}${s.parts.some((p) => p.letDown) ? "*" : ""}`;
        return (
          <g
            key={i}
            role="slider"
            tabIndex={0}
            aria-label={`step ${i + 1}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(100 * s.at)}
            aria-valuetext={label}
            data-flag={label}
            onKeyDown={(e) => step(e, f, (to) => onFlag(i, to))}
            onPointerDown={(e) => {
              take(e, i);
              onAt(f);
            }}
            style={{ cursor: "grab" }}
          >
            <rect x={X(s.at) - 22} y={0} width={44} height={rows.flags + 6} fill="transparent" />
            <text
              x={X(s.at)}
              y={flags.length > 6 && i % 2 ? 14 : 28}
              textAnchor="middle"
              fontFamily={figures}
              fontSize={13}
              fill={grey.ink}
            >
              {label}
            </text>
            <path d={`M${X(s.at) - 6} ${rows.flags - 9} h12 l-6 12 Z`} fill={grey.ink} />
          </g>
        );
      })}
    </svg>
  );
}

/** What stays as it is while one draws along the way. */
const Still = memo(function Still({
  pair,
  taint,
  over,
  width,
  hatch,
}: {
  pair: Pair;
  taint: number;
  over: Over[];
  width: number;
  hatch: string;
}) {
  const { fill } = useColours();
  const X = scaleLinear([0, 1], [edge, width - edge]);
  const way = placesOf(pair, taint).map((p, i) => ({ ...p, at: pair.samples[i]!.at }));
  const middle = (rows.under[0] + rows.under[1]) / 2;
  const half = (retention: number) =>
    Math.max(0.8, (retention * (rows.under[1] - rows.under[0])) / 2);
  const [top, foot] = rows.traces;
  const L = scaleLinear([0, 1], [foot, top]);
  const C = scaleLinear([0, 0.3], [foot, top]).clamp(true);
  const trace = (y: (i: number) => number) =>
    line<Pair["samples"][number]>(
      (s) => X(s.at),
      (_, i) => y(i),
    ).digits(1)(pair.samples) ?? undefined;
  return (
    <>
      <rect
        x={X(0)}
        y={rows.under[0]}
        width={X(1) - X(0)}
        height={rows.under[1] - rows.under[0]}
        fill={grey.track}
      />
      {way.slice(1).map((to, i) => {
        const from = way[i]!;
        const [x1, x2] = [X(from.at), X(to.at) + (i < way.length - 2 ? 1 : 0)];
        return (
          <g key={i}>
            <rect
              x={x1}
              y={rows.painted[0]}
              width={Math.max(0, x2 - x1)}
              height={rows.painted[1] - rows.painted[0]}
              fill={fill(to.asPainted)}
            />
            <path
              d={`M${x1} ${middle - half(from.retention)} L${x2} ${middle - half(to.retention)} V${middle + half(to.retention)} L${x1} ${middle + half(from.retention)} Z`}
              fill={fill(to.undertone)}
            />
          </g>
        );
      })}
      {[1, -1].map((side) => (
        <path
          key={side}
          d={`M${X(0)} ${middle + side * half(pair.cleanFrom)} H${X(1)}`}
          stroke={grey.paper}
          strokeWidth={1.6}
          strokeDasharray="0.1 5"
          strokeLinecap="round"
        />
      ))}
      {pair.dullStretches.map((z) => (
        <rect
          key={`d${z.from}`}
          x={X(z.fromAt)}
          y={rows.under[0]}
          width={Math.max(2, X(z.toAt) - X(z.fromAt))}
          height={rows.under[1] - rows.under[0]}
          fill={`url(#${hatch}d)`}
          opacity={0.55}
        >
          <title>{`dull from ${z.fromWord} to ${z.toWord}, ${z.lowest.toFixed(2)} at the lowest`}</title>
        </rect>
      ))}
      {pair.mudZones.map((z) => (
        <rect
          key={z.from}
          data-zone="mud"
          x={X(z.fromAt)}
          y={rows.under[0]}
          width={Math.max(2, X(z.toAt) - X(z.fromAt))}
          height={rows.under[1] - rows.under[0]}
          fill={`url(#${hatch})`}
          opacity={0.5}
        >
          <title>{`muddy from ${z.fromWord} to ${z.toWord}, ${z.lowest.toFixed(2)} at the lowest`}</title>
        </rect>
      ))}
      {pair.mudZones
        .flatMap((z) => [z.begins, z.ends])
        .map(
          (edge, i) =>
            edge &&
            edge[1]! > edge[0]! && (
              <path
                key={i}
                data-zone="edge"
                d={`M${X(edge[0]!)} ${rows.under[1] + 3} H${X(edge[1]!)}`}
                stroke={grey.ink}
                strokeWidth={2}
              >
                <title>where mud begins or ends, in most tubes</title>
              </path>
            ),
        )}
      {over.map((o, n) => {
        const y = middle + (n - (over.length - 1) / 2) * 16;
        const edge = (side: number) =>
          o.band
            .map(
              (b, i) =>
                `${i ? "L" : "M"}${X(b.at).toFixed(1)} ${(middle + side * half(b.retention)).toFixed(1)}`,
            )
            .join(" ");
        return (
          <g key={o.name} data-over={o.name} pointerEvents="none">
            {o.band.slice(1).map((to, i) => {
              const from = o.band[i]!;
              const thin = (r: number) => Math.max(0.8, r * 6);
              return (
                <path
                  key={i}
                  d={`M${X(from.at)} ${y - thin(from.retention)} L${X(to.at) + 0.6} ${y - thin(to.retention)} V${y + thin(to.retention)} L${X(from.at)} ${y + thin(from.retention)} Z`}
                  fill={fill(to.undertone)}
                />
              );
            })}
            {[1, -1].map((side) => (
              <g key={side} fill="none">
                <path d={edge(side)} stroke={grey.paper} strokeWidth={3} opacity={0.7} />
                <path
                  d={edge(side)}
                  stroke={grey.ink}
                  strokeWidth={1.4}
                  strokeDasharray={dashes[n % dashes.length]}
                />
              </g>
            ))}
          </g>
        );
      })}
      <rect x={X(0)} y={top} width={X(1) - X(0)} height={foot - top} fill="transparent" />
      <path d={`M${X(0)} ${foot} H${X(1)} M${X(0)} ${top} H${X(1)}`} stroke={grey.hairline} />
      <path
        d={trace((i) => L(pair.samples[i]!.asPainted.oklch[0]!))}
        fill="none"
        stroke={grey.ink}
        strokeWidth={1.8}
      />
      <path
        d={trace((i) => C(pair.samples[i]!.undertone.oklch[1]!))}
        fill="none"
        stroke={grey.ink}
        strokeWidth={1.6}
        strokeDasharray="6 4"
      />
    </>
  );
});
