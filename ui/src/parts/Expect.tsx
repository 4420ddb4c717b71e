import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import type { Schemas } from "../api/client";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { OneOf } from "./Choice";
import { Tick } from "./Tick";
import { grey } from "../drawing/style";

export type Expected = Schemas["Expected"];
/** A guess that may not be whole yet. */
export type Expecting = Partial<Expected>;
/** A guess, once all of it was said. */
export const whole = ({ hueWord, verdict, mud }: Expecting): Expected | null =>
  hueWord && verdict && mud ? { hueWord, verdict, mud } : null;

const verdicts: Expected["verdict"][] = ["clean", "quiet", "softened", "muddy"];

/** Which hue, and how bright it stays. */
export function HueAndDrop({
  of,
  hues,
  value,
  onSet,
}: {
  of: string;
  hues: string[];
  value: Expecting;
  onSet: (e: Expecting) => void;
}) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
      <OneOf
        label={`hue of ${of}`}
        shown={value.hueWord ?? "which hue?"}
        of={hues.map((h) => ({ value: h, name: h }))}
        value={value.hueWord ?? ""}
        onChoose={(hueWord) => onSet({ ...value, hueWord })}
      />
      <Box role="radiogroup" aria-label={`brightness of ${of}`} sx={{ display: "flex" }}>
        {verdicts.map((v) => (
          <ButtonBase
            key={v}
            role="radio"
            aria-checked={value.verdict === v}
            aria-label={v}
            onClick={() => onSet({ ...value, verdict: v })}
            sx={{
              p: "6px 4px 2px",
              minWidth: 58,
              minHeight: 48,
              flexDirection: "column",
              fontSize: 12,
              lineHeight: "16px",
              color: value.verdict === v ? grey.ink : grey.third,
              fontWeight: value.verdict === v ? 600 : 400,
              border: `2px solid ${value.verdict === v ? grey.ink : "transparent"}`,
            }}
          >
            <Drop verdict={v} height={20} />
            {v}
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}

/** The way under its cover: a mark is set where the mud is expected to start, or it is said that there is none. */
export function MudTrack({
  of,
  from,
  to,
  value,
  onSet,
  height = 40,
}: {
  of: string;
  from: Schemas["Shown"];
  to: Schemas["Shown"];
  value: Expecting;
  onSet: (e: Expecting) => void;
  height?: number;
}) {
  const { fill } = useColours();
  const way = useRef<HTMLDivElement>(null);
  const at = value.mud && !value.mud.nowhere ? value.mud.at : null;
  const set = (x: number) =>
    onSet({
      ...value,
      mud: { nowhere: false, at: Math.round(100 * Math.max(0, Math.min(1, x))) / 100 },
    });
  const place = (e: PointerEvent) => {
    const box = way.current!.getBoundingClientRect();
    set((e.clientX - box.left) / box.width);
  };
  const keys = (e: KeyboardEvent) => {
    const by = (
      { ArrowRight: 0.05, ArrowUp: 0.05, ArrowLeft: -0.05, ArrowDown: -0.05 } as Record<
        string,
        number
      >
    )[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    set((at ?? 0.5) + by);
  };
  return (
    <Box>
      <Box sx={{ display: "flex", alignItems: "stretch", height, gap: "2px" }}>
        <svg width={16} height={height} aria-hidden>
          <rect width={16} height={height} fill={fill(from)} />
        </svg>
        <Box
          ref={way}
          role="slider"
          tabIndex={0}
          aria-label={`where the mud starts, ${of}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={at === null ? undefined : Math.round(100 * at)}
          aria-valuetext={
            at === null
              ? value.mud
                ? "nowhere"
                : "not said"
              : `${Math.round(100 * at)} percent of the way`
          }
          onKeyDown={keys}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            place(e);
          }}
          onPointerMove={(e) => {
            if (e.currentTarget.hasPointerCapture(e.pointerId)) place(e);
          }}
          sx={{
            flex: 1,
            position: "relative",
            bgcolor: grey.track,
            cursor: "ew-resize",
            touchAction: "none",
            overflow: "hidden",
          }}
        >
          {at !== null && (
            <Box
              sx={{
                position: "absolute",
                top: 0,
                bottom: 0,
                left: `${100 * at}%`,
                right: 0,
                opacity: 0.35,
                backgroundImage: `repeating-linear-gradient(135deg, ${grey.ink} 0 1.2px, transparent 1.2px 7px)`,
              }}
            />
          )}
          {at !== null && (
            <Box
              sx={{
                position: "absolute",
                top: 0,
                bottom: 0,
                left: `calc(${100 * at}% - 1px)`,
                width: "2px",
                bgcolor: grey.ink,
              }}
            />
          )}
        </Box>
        <svg width={16} height={height} aria-hidden>
          <rect width={16} height={height} fill={fill(to)} />
        </svg>
      </Box>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Typography variant="caption">
          {at === null ? "press where the mud starts" : "muddy from here"}
        </Typography>
        <Tick
          words="it never turns muddy"
          on={value.mud?.nowhere === true}
          onSet={() => onSet({ ...value, mud: { nowhere: true, at: 0 } })}
        />
      </Box>
    </Box>
  );
}

/** Where the mud starts, in words. */
export function mudWords(mud: Schemas["MudStart"], from: string, to: string): string {
  if (mud.nowhere) return "no mud";
  if (mud.at < 0.005) return `muddy from ${from} on`;
  return `muddy ${(100 * mud.at).toFixed(0)} % of the way to ${to}`;
}

/** What was said beside what came, and what that is worth. */
export function Said({
  said,
  outcome,
  each,
  from,
  to,
}: {
  said: Expected;
  outcome: Schemas["PairOutcome"];
  each: number;
  from: string;
  to: string;
}) {
  return (
    <Typography aria-label="prediction" sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}>
      You said {said.hueWord}, {said.verdict}, {mudWords(said.mud, from, to)}. It is{" "}
      {outcome.computed}, {outcome.came}, {mudWords(outcome.mudCame, from, to)}.{" "}
      {outcome.couldBe && <>In tubes as they differ {outcome.couldBe.join(" or ")}. </>}
      <b>
        {outcome.points} of {each}
      </b>
    </Typography>
  );
}
