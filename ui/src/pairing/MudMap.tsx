import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { PairingOfBoth, Pairings } from "../api/client";
import { figures, grey, text } from "../drawing/style";
import { dashes, Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { keyOf } from "../parts/naming";
import { usePhone } from "../parts/usePhone";
import { ruleWords } from "./words";
import type { Paints } from "./Cell";

const sizes = [16, 22, 30, 42, 58];

/** Paints by paints: the disc grows and darkens with what is left half way. Arrow keys walk it, plus and minus zoom. */
export function MudMap({
  got,
  paints,
  covered,
  onOpen,
}: {
  got: Pairings;
  paints: Paints;
  covered: (p: PairingOfBoth) => boolean;
  onOpen: (p: PairingOfBoth) => void;
}) {
  const { fill } = useColours();
  const { phone } = usePhone();
  const list = got.paints;
  const [zoom, setZoom] = useState(
    list.length > 30 ? 0 : list.length > 20 ? 1 : list.length > 12 ? 2 : 3,
  );
  const [at, setAt] = useState<[number, number]>([Math.min(1, list.length - 1), 0]);
  const svg = useRef<SVGSVGElement>(null);
  const pairs = useMemo(() => new Map(got.pairs.map((p) => [keyOf(p), p])), [got]);
  const pairAt = ([i, j]: [number, number]) => pairs.get(keyOf({ a: list[i]!.id, b: list[j]!.id }));
  const size = sizes[zoom]!;
  const left = 184;
  const top = 96;
  const here = pairAt(at);
  const keys = (e: KeyboardEvent) => {
    const [di, dj] = (
      { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] } as Record<
        string,
        [number, number]
      >
    )[e.key] ?? [0, 0];
    if (di || dj) {
      e.preventDefault();
      e.stopPropagation();
      walk(di, dj);
    } else if (e.key === "+" || e.key === "=" || e.key === "-") {
      e.preventDefault();
      setZoom(Math.max(0, Math.min(sizes.length - 1, zoom + (e.key === "-" ? -1 : 1))));
    } else if ((e.key === "Enter" || e.key === " ") && here) {
      e.preventDefault();
      onOpen(here);
    }
  };
  const walk = (di: number, dj: number) => {
    const next = cellBeyond(di, dj);
    if (next) setAt(next);
  };
  const cellBeyond = (di: number, dj: number): [number, number] | undefined => {
    let [i, j] = [at[0] + di, at[1] + dj];
    if (i === j) [i, j] = [i + di, j + dj];
    return i >= 0 && j >= 0 && i < list.length && j < list.length ? [i, j] : undefined;
  };
  const disc = (r: number) => (size / 2 - 1.5) * Math.sqrt(r);
  return (
    <Box>
      <Box
        sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap", minHeight: 44 }}
      >
        <Button
          size="small"
          color="inherit"
          variant="outlined"
          aria-label="nearer"
          disabled={zoom === sizes.length - 1}
          onClick={() => setZoom(zoom + 1)}
          sx={{ minWidth: 48 }}
        >
          +
        </Button>
        <Button
          size="small"
          color="inherit"
          variant="outlined"
          aria-label="farther"
          disabled={zoom === 0}
          onClick={() => setZoom(zoom - 1)}
          sx={{ minWidth: 48 }}
        >
          −
        </Button>
        <Box role="status" sx={{ display: "flex", alignItems: "center", gap: 1, minWidth: 0 }}>
          {here && (
            <>
              {!covered(here) && <Drop verdict={here.verdict} sure={here.sure} height={17} />}
              <Typography>
                <b>
                  {paints.get(here.a)!.name} with {paints.get(here.b)!.name}
                </b>
                :{" "}
                {covered(here)
                  ? "covered"
                  : `${here.verdict}, ${here.retention.toFixed(2)}; ${here.middle.hueWord}; ${ruleWords(here)}`}
              </Typography>
            </>
          )}
        </Box>
      </Box>
      {phone && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 1 }}>
          {(
            [
              ["↑", "the row above", -1, 0],
              ["↓", "the row below", 1, 0],
              ["←", "the column before", 0, -1],
              ["→", "the column after", 0, 1],
            ] as const
          ).map(([sign, name, di, dj]) => (
            <Button
              key={sign}
              color="inherit"
              variant="outlined"
              aria-label={name}
              disabled={!cellBeyond(di, dj)}
              onClick={() => walk(di, dj)}
              sx={{ minWidth: 48, fontSize: 18 }}
            >
              {sign}
            </Button>
          ))}
          {here && (
            <Button color="inherit" variant="outlined" onClick={() => onOpen(here)}>
              open it
            </Button>
          )}
        </Box>
      )}
      <Box sx={{ overflow: "auto", maxHeight: "calc(100vh - 300px)", minHeight: 320 }}>
        <svg
          ref={svg}
          role="application"
          aria-label="mud map: arrow keys walk it, plus and minus zoom, enter opens"
          tabIndex={0}
          width={left + size * list.length + 60}
          height={top + size * list.length + 4}
          fontFamily={text}
          onKeyDown={keys}
        >
          {list.map((p, i) => (
            <g key={p.id}>
              <text
                x={left - 24}
                y={top + size * (i + 0.5) + 4}
                textAnchor="end"
                fontSize={size < 20 ? 12 : 13}
                fill={grey.ink}
                fontWeight={at[0] === i ? 600 : 400}
              >
                {short(paints.get(p.id)!.name, 20)}
              </text>
              <rect
                x={left - 18}
                y={top + size * i + 1}
                width={14}
                height={size - 2}
                fill={fill(p.undertone)}
              />
              <rect
                x={left + size * i + 1}
                y={top - 18}
                width={size - 2}
                height={14}
                fill={fill(p.undertone)}
              />
              <text
                transform={`translate(${left + size * (i + 0.5) + 4} ${top - 24}) rotate(-55)`}
                fontSize={12}
                fontFamily={figures}
                fill={grey.ink}
                fontWeight={at[1] === i ? 700 : 400}
              >
                {short(p.code, 12)}
              </text>
            </g>
          ))}
          {list.flatMap((_, i) =>
            list.map((__, j) => {
              const p = i === j ? undefined : pairAt([i, j]);
              const [x, y] = [left + size * j, top + size * i];
              if (!p)
                return (
                  <rect
                    key={`${i} ${j}`}
                    x={x}
                    y={y}
                    width={size}
                    height={size}
                    fill={grey.track}
                  />
                );
              const clean = p.verdict === "clean";
              return (
                <g
                  key={`${i} ${j}`}
                  data-pair={`${p.a}~${p.b}`}
                  onClick={() => {
                    setAt([i, j]);
                    onOpen(p);
                  }}
                  onMouseEnter={() => setAt([i, j])}
                  style={{ cursor: "pointer" }}
                >
                  <rect
                    x={x + 0.5}
                    y={y + 0.5}
                    width={size - 1}
                    height={size - 1}
                    fill={grey.paper}
                    stroke={at[0] === i && at[1] === j ? grey.ink : grey.hairline}
                    strokeWidth={at[0] === i && at[1] === j ? 2 : 0.6}
                  />
                  {covered(p) && (
                    <rect
                      x={x + size / 4}
                      y={y + size / 4}
                      width={size / 2}
                      height={size / 2}
                      fill={grey.track}
                      stroke={grey.mark}
                      strokeDasharray="3 2"
                    />
                  )}
                  {p.verdict !== "neutral" && !covered(p) && (
                    <circle
                      cx={x + size / 2}
                      cy={y + size / 2}
                      r={Math.max(1.6, disc(p.retention))}
                      fill={clean ? grey.ink : p.verdict === "muddy" ? "none" : grey.mark}
                      stroke={clean ? "none" : p.verdict === "quiet" ? grey.ink : grey.mark}
                      strokeWidth={1.2}
                    />
                  )}
                  {p.sure && p.sure !== "sure" && !covered(p) && size > 20 && (
                    <circle
                      data-sure={p.sure}
                      cx={x + size / 2}
                      cy={y + size / 2}
                      r={Math.max(1.6, disc(p.retention)) + 2.5}
                      fill="none"
                      stroke={grey.ink}
                      strokeWidth={1.2}
                      strokeDasharray={dashes[p.sure]}
                    />
                  )}
                  {!p.agrees && !covered(p) && size > 20 && (
                    <path
                      d={`M${x + 2} ${y + 2} h${size / 4} l${-size / 4} ${size / 4} Z`}
                      fill={grey.ink}
                    />
                  )}
                </g>
              );
            }),
          )}
        </svg>
      </Box>
      <Typography variant="caption" component="p" sx={{ mt: 0.5 }}>
        the disc’s area is the brightness left half way: black clean, grey softened (ringed in
        black: quiet), hollow muddy
        {sizes[zoom]! > 20 &&
          "; a ring of dashes where that is likely, of dots where it may go either way"}
        {sizes[zoom]! > 20 && "; a cut corner where the rule of thumb parts from it"}; empty where
        there is no hue
      </Typography>
    </Box>
  );
}

const short = (s: string, n: number) => (s.length > n ? `${s.slice(0, n - 1)}…` : s);
