import type { Theme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useEffect, useMemo, useRef, type KeyboardEvent } from "react";
import type { Section, Slot, Wheel } from "../api/client";
import { figures, grey, text } from "../app/theme";
import { Drop } from "../drawing/Marks";
import { cut, fill } from "../drawing/screen";
import { piece, point, sector } from "../drawing/ring";
import { partsInWords, ratio, share } from "./words";

/** The whole stage beside the heading, and without it where the figure stands alone. */
const stage = "0 0 744 652";
const alone = "0 14 744 640";
const cx = 372;
const cy = 334;
const rim = { inner: 184, outer: 252 };
const band = { outer: 176, thick: 52 };

/** The wheel: rim as painted, ribbon of undertones, drops for verdicts. Arrow keys walk the slots. */
export function WheelFigure({ wheel, chosen, onChoose, onOpen }: {
  wheel: Wheel;
  chosen: number;
  onChoose: (slot: number) => void;
  onOpen: (slot: number) => void;
}) {
  const ring = useRef<SVGGElement>(null);
  const walked = useRef(false);
  useEffect(() => {
    if (walked.current) ring.current?.querySelector<SVGGElement>(`[data-slot="${chosen}"]`)?.focus();
    walked.current = false;
  }, [chosen]);
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: 11, ArrowUp: 11 }[e.key];
    if (by) {
      e.preventDefault();
      walked.current = true;
      onChoose((chosen + by) % 12);
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      onOpen(chosen);
    }
  };
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const ribbon = useMemo(() => wheel.sections.map((s, k) => <Ribbon key={k} section={s} start={120 * k} />), [wheel.sections]);
  const order = [...wheel.slots].sort((a, b) => Number(a.index === chosen) - Number(b.index === chosen));
  return (
    <svg viewBox={narrow ? alone : stage} width="100%" style={{ display: "block", maxHeight: narrow ? undefined : "calc(100vh - 116px)" }} fontFamily={text}>
      <circle cx={cx} cy={cy} r={band.outer - band.thick / 2} fill="none" stroke={grey.track} strokeWidth={band.thick} />
      {ribbon}
      <circle cx={cx} cy={cy} r={band.outer - band.thick * wheel.cleanFrom} fill="none" stroke={grey.paper} strokeWidth={1.2} strokeDasharray="0.1 5" strokeLinecap="round" />
      <Jumps slots={wheel.slots} />
      <g ref={ring} role="radiogroup" aria-label="slots of the wheel" onKeyDown={keys}>
        {order.map((s) => (
          <SlotMark key={s.index} slot={s} chosen={s.index === chosen} onChoose={() => onChoose(s.index)} onOpen={() => onOpen(s.index)} />
        ))}
      </g>
      <Across angle={30 * wheel.slots[chosen]!.complement} />
      <Summary slots={wheel.slots} />
    </svg>
  );
}

function SlotMark({ slot, chosen, onChoose, onOpen }: { slot: Slot; chosen: boolean; onChoose: () => void; onOpen: () => void }) {
  const middle = 30 * slot.index;
  const out = chosen ? 10 : 0;
  const shape = sector(cx, cy, rim.inner + out, rim.outer + out, middle - 15, middle + 15, 2.8);
  const primary = slot.kind === "primary";
  const name = `${slot.name}, ${slot.kind}, ${partsInWords(slot.parts)}, ${slot.verdict}, ${share(slot.retention)} of the possible`;
  return (
    <g
      role="radio"
      aria-checked={chosen}
      aria-label={name}
      tabIndex={chosen ? 0 : -1}
      data-slot={slot.index}
      onClick={onChoose}
      onDoubleClick={onOpen}
      style={{ cursor: "pointer", outline: "none" }}
    >
      <path d={shape} fill={fill(slot.asPainted)} />
      {chosen && (
        <>
          <path d={shape} fill="none" stroke={grey.paper} strokeWidth={4} />
          <path d={sector(cx, cy, rim.inner + out - 3, rim.outer + out + 3, middle - 15, middle + 15, -2)} fill="none" stroke={grey.ink} strokeWidth={2.2} strokeLinejoin="round" />
        </>
      )}
      {primary && <PrimaryMark angle={middle} r={rim.outer + out + (chosen ? 8 : 4)} />}
      {cut(slot.asPainted) && <Corner angle={middle + 15} r={rim.outer + out} />}
      <Label slot={slot} out={out} />
    </g>
  );
}

/** A rule over a primary's slot. */
function PrimaryMark({ angle, r }: { angle: number; r: number }) {
  const [x1, y1] = point(cx, cy, r, angle - 13);
  const [x2, y2] = point(cx, cy, r, angle + 13);
  return <path d={`M${x1} ${y1} A${r} ${r} 0 0 1 ${x2} ${y2}`} fill="none" stroke={grey.ink} strokeWidth={2.4} />;
}

/** A small triangle of paper: brighter in paint than the screen can show. */
function Corner({ angle, r }: { angle: number; r: number }) {
  const [x, y] = point(cx, cy, r - 4, angle - 1.4);
  const [x2, y2] = point(cx, cy, r - 4, angle - 3.6);
  const [x3, y3] = point(cx, cy, r - 13, angle - 1.4);
  return <path d={`M${x} ${y} L${x2} ${y2} L${x3} ${y3} Z`} fill={grey.paper} />;
}

function Label({ slot, out }: { slot: Slot; out: number }) {
  const angle = 30 * slot.index;
  const r = rim.outer + out + 14;
  const [px, py] = point(cx, cy, r, angle);
  const side = slot.index % 6 === 0 ? 0 : slot.index < 6 ? 1 : -1;
  const anchor = side === 0 ? "middle" : side > 0 ? "start" : "end";
  const y = slot.index === 0 ? py - 20 : slot.index === 6 ? py + 16 : py + 2;
  const figuresText = ratio(slot.parts);
  const second = { fontFamily: figures, fontSize: 14, fill: grey.third };
  const hasDrop = slot.verdict !== "neutral";
  const wide = figuresText.length * 7.6;
  const start = side === 0 ? px - (wide + 16) / 2 : side > 0 ? px : px - wide - 16;
  return (
    <g>
      <text x={px} y={y} textAnchor={anchor} fontSize={16} fontWeight={slot.kind === "primary" ? 600 : 500} fill={grey.ink}>
        {slot.name}
      </text>
      {hasDrop && <Drop verdict={slot.verdict} height={13} x={start} y={y + 6.5} />}
      <text x={hasDrop ? start + 15 : px} y={y + 17} textAnchor={hasDrop ? "start" : anchor} {...second}>
        {figuresText}
      </text>
    </g>
  );
}

/** One section's undertones: thickness is how much of the possible brightness is left. */
function Ribbon({ section, start }: { section: Section; start: number }) {
  const inner = (retention: number) => band.outer - Math.max(1.2, band.thick * retention);
  return (
    <g>
      {section.band.slice(1).map((to, i) => {
        const from = section.band[i]!;
        if (to.at <= from.at) return null;
        const overlap = 0.35;
        return <path key={i} d={piece(cx, cy, band.outer, start + 120 * from.at, start + 120 * to.at + overlap, inner(from.retention), inner(to.retention))} fill={fill(to.undertone)} />;
      })}
    </g>
  );
}

/** Two short strokes outside the rim where a step jumps. */
function Jumps({ slots }: { slots: Slot[] }) {
  return (
    <g stroke={grey.ink} strokeWidth={1.6}>
      {slots
        .filter((s) => s.jumps)
        .flatMap((s) =>
          [-0.7, 0.7].map((d) => {
            const [x1, y1] = point(cx, cy, rim.outer + 3, 30 * s.index + 15 + d);
            const [x2, y2] = point(cx, cy, rim.outer + 12, 30 * s.index + 15 + d);
            return <line key={`${s.index} ${d}`} x1={x1} y1={y1} x2={x2} y2={y2} />;
          }),
        )}
    </g>
  );
}

/** Points at the slot across. */
function Across({ angle }: { angle: number }) {
  const r = band.outer - band.thick - 6;
  const tip = point(cx, cy, r, angle);
  const a = point(cx, cy, r - 12, angle - 2.2);
  const b = point(cx, cy, r - 12, angle + 2.2);
  return <path d={`M${tip.join(" ")} L${a.join(" ")} L${b.join(" ")} Z`} fill={grey.ink} />;
}

/** How the nine mixtures come out, in the empty middle. */
function Summary({ slots }: { slots: Slot[] }) {
  const mixed = slots.filter((s) => s.kind !== "primary");
  const rows = (["clean", "softened", "muddy"] as const).map((verdict) => ({ verdict, n: mixed.filter((s) => s.verdict === verdict).length }));
  return (
    <g>
      <text x={cx} y={cy - 38} textAnchor="middle" fontSize={13} fill={grey.third}>
        of nine mixtures
      </text>
      {rows.map(({ verdict, n }, i) => (
        <g key={verdict} fill={n === 0 ? grey.third : grey.ink}>
          <text x={cx - 30} y={cy - 8 + 28 * i} textAnchor="end" fontSize={20} fontFamily={figures}>
            {n}
          </text>
          <Drop verdict={verdict} height={18} x={cx - 22} y={cy - 23 + 28 * i} />
          <text x={cx} y={cy - 8 + 28 * i} fontSize={15}>
            {verdict}
          </text>
        </g>
      ))}
    </g>
  );
}
