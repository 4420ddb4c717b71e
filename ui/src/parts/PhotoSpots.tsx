import Box from "@mui/material/Box";
import Slider from "@mui/material/Slider";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { sendFile, type Conditions } from "../api/client";
import { FileButton } from "./FileButton";
import { grey } from "../drawing/style";
import type { Read } from "./colour";

type Spot = { x: number; y: number };
type Name = "paper" | "mass" | "tint";
const begin: Record<Name, Spot> = {
  paper: { x: 0.15, y: 0.2 },
  mass: { x: 0.4, y: 0.5 },
  tint: { x: 0.7, y: 0.5 },
};

/** A photo with spots to drag onto bare paper and what is read: masstone and tint, or one colour alone. */
export function PhotoSpots({
  surface,
  reads,
  onPicked,
}: {
  surface: Pick<Conditions, "medium" | "judged">;
  reads: { mass: string; tint?: string };
  onPicked: (p: { mass?: Read; tint?: Read }) => void;
}) {
  const names: Partial<Record<Name, string>> = { paper: "bare paper", ...reads };
  const tinted = reads.tint !== undefined;
  const [file, setFile] = useState<File | null>(null);
  const [url, setUrl] = useState<string | null>(null);
  const [spots, setSpots] = useState(begin);
  const [radius, setRadius] = useState(0.02);
  const [problem, setProblem] = useState<string | null>(null);
  const stage = useRef<HTMLDivElement>(null);
  const dragged = useRef<Name | null>(null);
  const tell = useRef(onPicked);
  useEffect(() => {
    tell.current = onPicked;
  });

  const open = (f: File) => {
    if (url) URL.revokeObjectURL(url);
    setUrl(URL.createObjectURL(f));
    setFile(f);
    setSpots(begin);
  };
  const { medium, judged } = surface;
  useEffect(() => {
    if (!file) return;
    const written = (s: Spot) => [s.x, s.y, radius].map((v) => v.toFixed(4)).join(",");
    let stale = false;
    const wait = setTimeout(() => {
      sendFile<{ mass?: Read; tint?: Read }>("photo", file, {
        paper: written(spots.paper),
        mass: written(spots.mass),
        tint: tinted ? written(spots.tint) : undefined,
        medium,
        judged,
      })
        .then((got) => {
          if (stale) return;
          setProblem(null);
          tell.current(got);
        })
        .catch((e: unknown) => {
          if (stale) return;
          setProblem(e instanceof Error ? e.message : String(e));
          tell.current({});
        });
    }, 200);
    return () => {
      stale = true;
      clearTimeout(wait);
    };
  }, [file, spots, radius, tinted, medium, judged]);

  const within = (v: number) => Math.max(0, Math.min(1, v));
  const drag = (e: PointerEvent) => {
    const box = stage.current?.getBoundingClientRect();
    if (!dragged.current || !box) return;
    const name = dragged.current;
    const to = {
      x: within((e.clientX - box.left) / box.width),
      y: within((e.clientY - box.top) / box.height),
    };
    setSpots((now) => ({ ...now, [name]: to }));
  };
  const nudge = (name: Name) => (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      e.key
    ];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    const step = e.shiftKey ? 0.05 : 0.01;
    setSpots((now) => ({
      ...now,
      [name]: { x: within(now[name].x + by[0]! * step), y: within(now[name].y + by[1]! * step) },
    }));
  };
  return (
    <Box sx={{ mt: 1 }}>
      <FileButton
        label={file ? "another photo" : "choose a photo"}
        accept="image/png,image/jpeg"
        onFile={open}
      />
      {!file && (
        <Typography variant="body2" sx={{ mt: 1, color: grey.second }}>
          PNG or JPEG, up to 12 MB, of {tinted ? "both swatches" : "the colour"} and some bare white
          paper in the same even light. Colours are read as sRGB.
        </Typography>
      )}
      {problem && (
        <Typography role="alert" sx={{ fontWeight: 500, mt: 1 }}>
          {problem}
        </Typography>
      )}
      {url && (
        <>
          <Typography variant="body2" sx={{ mt: 1 }}>
            Drag the rings onto bare paper
            {tinted ? `, ${reads.mass} and ${reads.tint}` : ` and the ${reads.mass}`} (or walk them
            with the arrow keys).
          </Typography>
          <Box
            ref={stage}
            onPointerMove={drag}
            onPointerUp={() => (dragged.current = null)}
            sx={{
              position: "relative",
              width: "fit-content",
              maxWidth: 1,
              mt: 1,
              touchAction: "none",
              userSelect: "none",
              lineHeight: 0,
            }}
          >
            <img
              src={url}
              alt="the swatches"
              draggable={false}
              style={{ maxWidth: "100%", maxHeight: 300, imageOrientation: "none" }}
            />
            {(Object.keys(names) as Name[]).map((name) => (
              <Box
                key={name}
                role="slider"
                tabIndex={0}
                aria-label={`spot of ${names[name]}`}
                aria-valuenow={Math.round(100 * spots[name].x)}
                aria-valuetext={`${Math.round(100 * spots[name].x)} % across, ${Math.round(100 * spots[name].y)} % down`}
                data-spot={name}
                onKeyDown={nudge(name)}
                onPointerDown={(e) => {
                  dragged.current = name;
                  stage.current?.setPointerCapture(e.pointerId);
                }}
                sx={{
                  position: "absolute",
                  left: `${100 * spots[name].x}%`,
                  top: `${100 * spots[name].y}%`,
                  width: 0,
                  height: 0,
                  cursor: "grab",
                }}
              >
                <Ring radius={radius} stage={stage} />
                <Box
                  component="span"
                  sx={{
                    position: "absolute",
                    left: -40,
                    width: 80,
                    top: 18,
                    textAlign: "center",
                    fontSize: 12,
                    lineHeight: "16px",
                    bgcolor: grey.paper,
                    color: grey.ink,
                  }}
                >
                  {names[name]}
                </Box>
              </Box>
            ))}
          </Box>
          <Box sx={{ display: "flex", alignItems: "center", gap: 2, maxWidth: 280 }}>
            <Typography variant="caption" sx={{ whiteSpace: "nowrap" }}>
              size of the rings
            </Typography>
            <Slider
              size="small"
              aria-label="size of the rings"
              min={0.005}
              max={0.08}
              step={0.005}
              value={radius}
              onChange={(_, v) => setRadius(v)}
            />
          </Box>
        </>
      )}
    </Box>
  );
}

/** The ring as large as the spot that is read. */
function Ring({
  radius,
  stage,
}: {
  radius: number;
  stage: React.RefObject<HTMLDivElement | null>;
}) {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const el = stage.current;
    if (!el) return;
    const watch = new ResizeObserver(() => setWidth(el.clientWidth));
    watch.observe(el);
    return () => watch.disconnect();
  }, [stage]);
  const r = Math.max(5, radius * width);
  return (
    <svg
      width={2 * r + 6}
      height={2 * r + 6}
      style={{ position: "absolute", left: -r - 3, top: -r - 3 }}
      aria-hidden
    >
      <circle cx={r + 3} cy={r + 3} r={r + 1} fill="none" stroke={grey.paper} strokeWidth={3.5} />
      <circle
        cx={r + 3}
        cy={r + 3}
        r={r + 1}
        fill="transparent"
        stroke={grey.ink}
        strokeWidth={1.5}
      />
    </svg>
  );
}
