import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useId, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";
import type { Held } from "./useRibbons";

type Stop = Schemas["EyeStop"];

/** A ribbon is drawn this wide, and as high as its belly. */
const drawn = { width: 600, height: 100, thread: 5, belly: 110 } as const;

/** Half as thick as a ribbon is so far from its middle. */
const half = (x: number) =>
  drawn.thread +
  (drawn.height / 2 - drawn.thread) * Math.exp(-(((x - drawn.width / 2) / drawn.belly) ** 2));

const nearest = (stops: Stop[], off: number) =>
  stops.reduce((best, s) => (Math.abs(s.off - off) < Math.abs(best.off - off) ? s : best));

/** One ribbon, drawn through its place so far that the held colour lies in its middle. */
function Drawn({ of, off, held }: { of: Held["ribbons"][number]; off: number; held: number }) {
  const { fill } = useColours();
  const id = useId();
  const x = (stop: Stop) => (drawn.width / 2) * (1 + (stop.off - held) / off);
  const [first, last] = [of.stops[0]!, of.stops.at(-1)!];
  const from = Math.max(0, x(first));
  const to = Math.min(drawn.width, x(last));
  const along = Array.from({ length: 61 }, (_, i) => from + ((to - from) * i) / 60);
  const y = drawn.height / 2;
  const edge = [
    ...along.map((at) => `${at} ${y - half(at)}`),
    ...along.reverse().map((at) => `${at} ${y + half(at)}`),
  ];
  return (
    <svg
      width="100%"
      height="100%"
      viewBox={`0 0 ${drawn.width} ${drawn.height}`}
      preserveAspectRatio="none"
      aria-hidden
      focusable="false"
      style={{ display: "block" }}
    >
      <linearGradient id={id} gradientUnits="userSpaceOnUse" x1={x(first)} x2={x(last)}>
        {of.stops.map((s) => (
          <stop
            key={s.off}
            offset={(s.off - first.off) / (last.off - first.off)}
            stopColor={fill(s)}
          />
        ))}
      </linearGradient>
      <path d={`M${edge.join("L")}Z`} fill={`url(#${id})`} />
    </svg>
  );
}

/**
 * Three ribbons that a painted place is held in: dark to light, quiet to bright, from one neighbour's
 * hue to the other's. Each is drawn through by hand, by its words or by keys until the place
 * disappears in the broad of them.
 */
export function HeldRibbons({
  of: data,
  off,
  height = 100,
  beside = "what was aimed at",
  onMove,
}: {
  of: Held;
  /** What the colour that was come to is beside. */
  beside?: string;
  /** How far they run either way, CIEDE2000. */
  off: number;
  height?: number;
  onMove: (lab: Stop["lab"]) => void;
}) {
  const { fill } = useColours();
  const [moved, setMoved] = useState<{ of: Held; ribbon: number; by: number }>();
  const drag = useRef<{ x: number; by: number; width: number }>(undefined);
  const { ribbons, middle, says, asAimed } = data;
  const here = moved?.of === data ? moved : undefined;
  const by = (ribbon: number) => (here?.ribbon === ribbon ? here.by : 0);
  // While a ribbon is drawn the others wait: they lie through the colour before it.
  const free = (ribbon: number) => !here || here.ribbon === ribbon;
  const stopAt = (ribbon: number, to: number) => nearest(ribbons[ribbon]!.stops, to);
  const held = here ? stopAt(here.ribbon, here.by) : middle;
  const move = (ribbon: number, to: number) => {
    const { stops } = ribbons[ribbon]!;
    const within = Math.min(stops.at(-1)!.off, Math.max(stops[0]!.off, to));
    setMoved({ of: data, ribbon, by: within });
    return within;
  };
  const step = (ribbon: number, way: number) => {
    if (free(ribbon)) onMove(stopAt(ribbon, move(ribbon, by(ribbon) + (way * off) / 6)).lab);
  };
  const word = (ribbon: number, way: -1 | 1) => (
    <Button
      color="inherit"
      sx={{ minHeight: 56, px: 0.5, fontSize: 15, lineHeight: 1.2 }}
      onClick={() => step(ribbon, way)}
    >
      {way < 0 ? ribbons[ribbon]!.from : ribbons[ribbon]!.to}
    </Button>
  );
  return (
    <Box>
      <Box
        role="group"
        aria-label="held in the ribbons"
        sx={{
          position: "relative",
          bgcolor: "#fff",
          color: "#161616",
          py: 1.5,
          display: "grid",
          gridTemplateColumns: "minmax(72px, 96px) minmax(0, 1fr) minmax(72px, 96px)",
          alignItems: "center",
        }}
      >
        {ribbons.map((of, ribbon) => (
          <Box key={ribbon} sx={{ display: "contents" }}>
            {word(ribbon, -1)}
            <Box
              role="slider"
              tabIndex={0}
              aria-label={`${of.from} to ${of.to}`}
              aria-valuemin={of.stops[0]!.off}
              aria-valuemax={of.stops.at(-1)!.off}
              aria-valuenow={by(ribbon)}
              aria-valuetext={says}
              sx={{ height, touchAction: "pan-y", cursor: "ew-resize" }}
              onKeyDown={(e) => {
                const way = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
                if (!way) return;
                e.preventDefault();
                step(ribbon, way);
              }}
              onPointerDown={(e) => {
                if (!free(ribbon)) return;
                e.currentTarget.setPointerCapture(e.pointerId);
                const { width } = e.currentTarget.getBoundingClientRect();
                drag.current = { x: e.clientX, by: by(ribbon), width };
              }}
              onPointerMove={(e) => {
                const from = drag.current;
                if (from) move(ribbon, from.by - ((e.clientX - from.x) / from.width) * 2 * off);
              }}
              onPointerUp={() => {
                drag.current = undefined;
                if (here?.ribbon === ribbon) onMove(stopAt(ribbon, here.by).lab);
              }}
              onPointerCancel={() => {
                drag.current = undefined;
                setMoved(undefined);
              }}
            >
              <Drawn of={of} off={off} held={by(ribbon)} />
            </Box>
            {word(ribbon, 1)}
          </Box>
        ))}
        <Box
          data-held={held.lab.join(",")}
          sx={{
            position: "absolute",
            pointerEvents: "none",
            left: "calc(50% - 40px)",
            width: 80,
            top: 12,
            bottom: 12,
            bgcolor: fill(held),
            borderTop: `2px solid ${grey.ink}`,
            borderBottom: `2px solid ${grey.ink}`,
          }}
        />
      </Box>
      <Typography role="status" variant="caption" component="div">
        {asAimed ? `as ${beside}` : `beside ${beside}: ${says}`}
      </Typography>
    </Box>
  );
}
