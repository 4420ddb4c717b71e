import { useRef, type KeyboardEvent } from "react";
import { grey, text } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { useColours } from "../drawing/screen";
import { value } from "../drawing/value";
import { LineMark } from "./Marks";
import { usePhone } from "../parts/usePhone";
import type { Compared } from "./shapes";

const size = 260;
const c = size / 2;
const [inner, outer] = [62, 108];
const lifted = 7; // of the chosen step

/** One system's twelve steps as a wheel, its first role on top: a twelfth each, or each where its undertone stands. */
export function StepWheel({
  system,
  index,
  byHue,
  at,
  onStep,
}: {
  system: Compared;
  index: number;
  byHue: boolean;
  at: number;
  onStep: (n: number) => void;
}) {
  const { fill } = useColours();
  const { phone, type } = usePhone();
  const ring = useRef<SVGGElement>(null);
  const filled = system.slots
    .map((_, n) => n)
    .filter((n) => !byHue || (!system.slots[n]!.empty && system.slots[n]!.verdict !== "neutral"));
  const angle = (n: number) => (byHue ? 120 - system.slots[n]!.wheelHue : 30 * n);
  const half = byHue ? 9 : 15;
  const keys = (e: KeyboardEvent) => {
    const by = (
      { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 } as Record<string, number>
    )[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    const next = filled[(filled.indexOf(at) + by + filled.length) % filled.length]!;
    onStep(next);
    ring.current?.querySelector<SVGGElement>(`[data-step="${next}"]`)?.focus();
  };
  const chosen = system.slots[at]!;
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width="100%"
      style={{ display: "block", maxWidth: 300, margin: "0 auto" }}
      fontFamily={text}
    >
      {byHue && (
        <circle
          cx={c}
          cy={c}
          r={(inner + outer) / 2}
          fill="none"
          stroke={grey.track}
          strokeWidth={outer - inner}
        />
      )}
      <g ref={ring} role="radiogroup" aria-label={`steps of ${system.name}`} onKeyDown={keys}>
        {filled.map((n) => {
          const slot = system.slots[n]!;
          const [x, y] = point(c, c, outer + (n === at ? lifted : 0) + 12, angle(n));
          return (
            <g
              key={n}
              role="radio"
              aria-checked={n === at}
              data-step={n}
              tabIndex={n === at ? 0 : -1}
              aria-label={`${system.name}: ${slot.name}, ${slot.empty ? "empty" : `${slot.verdict}, ${slot.words}, value ${value(slot.asPainted)}`}`}
              onClick={() => onStep(n)}
              style={{ cursor: "pointer", outline: "none" }}
            >
              <Sector
                centre={[c, c]}
                inner={inner}
                outer={outer}
                from={angle(n) - half}
                to={angle(n) + half}
                gap={byHue ? 0 : 2}
                fill={
                  n === at
                    ? byHue
                      ? grey.track
                      : grey.paper
                    : slot.empty
                      ? grey.track
                      : fill(slot.asPainted)
                }
                stroke={byHue && n !== at ? grey.paper : "none"}
              />
              {!slot.empty && !byHue && (
                <Drop verdict={slot.verdict} height={13} x={x - 5} y={y - 7} />
              )}
            </g>
          );
        })}
      </g>
      {filled.includes(at) && (
        <Sector
          centre={[c, c]}
          inner={inner + lifted}
          outer={outer + lifted}
          from={angle(at) - half}
          to={angle(at) + half}
          gap={byHue ? 0 : 2}
          fill={chosen.empty ? grey.track : fill(chosen.asPainted)}
          stroke={grey.ink}
          strokeWidth={2}
          pointerEvents="none"
        />
      )}
      <g transform={`translate(${c - 20} ${c - 22})`}>
        <LineMark index={index} />
      </g>
      <text
        x={c}
        y={c + 8}
        textAnchor="middle"
        fontSize={type(13.5, size, 0.48, 300)}
        fontWeight={600}
        fill={grey.ink}
      >
        {chosen.name}
      </text>
      <text
        x={c}
        y={c + (phone ? 30 : 25)}
        textAnchor="middle"
        fontSize={type(12, size, 0.48, 300)}
        fill={grey.second}
      >
        {chosen.empty ? "empty" : chosen.verdict}
      </text>
    </svg>
  );
}
