import type { Theme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useEffect, useMemo, useRef, type KeyboardEvent } from "react";
import type { RingRung, Section, Slot, Wheel } from "../api/client";
import { shortName, SlotName } from "../drawing/SlotName";
import { figures, grey, placeHeight, text } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Fade } from "../drawing/Fade";
import { useColours, useSquint } from "../drawing/screen";
import { usePhone } from "../parts/usePhone";
import { Piece, Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { upon, value } from "../drawing/value";
import { partsInWords, ratio, share } from "./words";

/** The whole stage beside the heading, and without it where the figure stands alone. */
const stage = "0 0 744 652";
const alone = "0 14 744 640";
/** On a phone with short names, of which a letter is 12 px high at 360. */
const small = `${372 - 325} ${334 - 320} 650 640`;
const smallType = 24;
const cx = 372;
const cy = 334;
const centre = [cx, cy] as const;
const rim = { inner: 184, outer: 252 };
const band = { outer: 176, thick: 52 };

/** The wheel: rim as painted, ribbon of undertones, drops for verdicts. Arrow keys walk the slots. */
export function WheelFigure({
  wheel,
  chosen,
  covered = false,
  halves = false,
  below = 0,
  clear,
  onChoose,
  onWalk,
  onOpen,
}: {
  wheel: Wheel;
  chosen: number;
  /** Whether the mixed slots lie under their covers, or which of them, by index. */
  covered?: boolean | ReadonlySet<number>;
  halves?: boolean;
  /** What of the place's height lies below it, px. */
  below?: number;
  /** How far down the page is clear of a card, px; where none lies on it. */
  clear?: () => number;
  onChoose: (slot: number) => void;
  onWalk: (by: 1 | -1) => void;
  /** Opens the chosen slot. */
  onOpen: () => void;
}) {
  const ring = useRef<SVGGElement>(null);
  const walked = useRef(false);
  useEffect(() => {
    if (walked.current)
      ring.current?.querySelector<SVGGElement>(`[data-slot="${chosen}"]`)?.focus();
    walked.current = false;
  }, [chosen]);
  // What a card from below would hide is scrolled above it.
  useEffect(() => {
    const slot = ring.current?.querySelector(`[data-slot="${chosen}"]`);
    const hidden = clear && slot ? slot.getBoundingClientRect().bottom + 8 - clear() : 0;
    if (hidden > 0) window.scrollBy(0, hidden);
  }, [chosen, clear]);
  const keys = (e: KeyboardEvent) => {
    const by = ({ ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 } as const)[e.key];
    if (by) {
      e.preventDefault();
      walked.current = true;
      onWalk(by);
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      onOpen();
    }
  };
  const { phone } = usePhone();
  const squinting = useSquint();
  const narrow = useMediaQuery((t: Theme) => t.breakpoints.down("md"));
  const ccw = !!wheel.choices.ccw;
  const under = (slot: Slot) =>
    slot.kind !== "primary" && (typeof covered === "boolean" ? covered : covered.has(slot.index));
  const some = typeof covered === "boolean" ? covered : covered.size > 0;
  const ribbon = useMemo(
    () =>
      wheel.sections.map((s, k) => {
        const start = wheel.slots.find((slot) => slot.home === 4 * k)!.index;
        return <Ribbon key={k} section={s} start={30 * start} turn={ccw ? -1 : 1} />;
      }),
    [wheel.sections, wheel.slots, ccw, squinting], // eslint-disable-line react-hooks/exhaustive-deps -- squinting changes what fill says
  );
  const order = [...wheel.slots].sort(
    (a, b) => Number(a.index === chosen) - Number(b.index === chosen),
  );
  return (
    <svg
      viewBox={phone ? small : narrow ? alone : stage}
      width="100%"
      style={{
        display: "block",
        overflow: narrow && !phone ? undefined : "visible",
        maxHeight: phone
          ? "calc(100dvh - 64px)"
          : narrow
            ? undefined
            : `calc(${placeHeight} - ${below}px)`,
      }}
      fontFamily={text}
    >
      <circle
        cx={cx}
        cy={cy}
        r={band.outer - band.thick / 2}
        fill="none"
        stroke={grey.track}
        strokeWidth={band.thick}
      />
      {ribbon.filter((_, k) => !wheel.slots.some((s) => Math.floor(s.home / 4) === k && under(s)))}
      <circle
        cx={cx}
        cy={cy}
        r={band.outer - band.thick * wheel.cleanFrom}
        fill="none"
        stroke={grey.paper}
        strokeWidth={1.2}
        strokeDasharray="0.1 5"
        strokeLinecap="round"
      />
      {!some && <Jumps slots={wheel.slots} />}
      <g ref={ring} role="radiogroup" aria-label="slots of the wheel" onKeyDown={keys}>
        {order.map((s) => (
          <SlotMark
            key={s.index}
            slot={s}
            chosen={s.index === chosen}
            covered={under(s)}
            phone={phone}
            ccw={ccw}
            onChoose={() => onChoose(s.index)}
            onOpen={onOpen}
          />
        ))}
      </g>
      {halves && <Halves wheel={wheel} ccw={ccw} />}
      <Across angle={30 * wheel.slots[chosen]!.complement} />
      {wheel.neutrals?.length && !some ? (
        <Middles neutrals={wheel.neutrals} onChoose={onChoose} />
      ) : (
        !some && <Summary slots={wheel.slots} phone={phone} />
      )}
      <defs>
        <pattern
          id="cover"
          width={6}
          height={6}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={6} height={6} fill={grey.paper} />
          <line x1={0} y1={0} x2={0} y2={6} stroke={grey.hairline} strokeWidth={2} />
        </pattern>
      </defs>
    </svg>
  );
}

function SlotMark({
  slot,
  chosen,
  covered,
  phone,
  ccw,
  onChoose,
  onOpen,
}: {
  slot: Slot;
  chosen: boolean;
  covered: boolean;
  phone: boolean;
  ccw: boolean;
  onChoose: () => void;
  onOpen: () => void;
}) {
  const { cut, fill } = useColours();
  const middle = 30 * slot.index;
  const out = chosen ? 10 : 0;
  const place = { centre, from: middle - 15, to: middle + 15, gap: 2.8 };
  const whole = { ...place, inner: rim.inner + out, outer: rim.outer + out };
  const primary = slot.kind === "primary";
  const name = slot.empty
    ? `${slot.name}, empty`
    : covered
      ? `${slot.name}, ${slot.kind}, covered`
      : `${slot.name}, ${slot.kind}, ${partsInWords(slot.parts)}, ${judged(slot)}, ${share(slot.retention)} of the possible, value ${value(slot.asPainted)}`;
  const bands = ringBands(slot, rim.inner + out, rim.outer + out);
  const halves =
    slot.halves?.length === 2 && !covered
      ? ccw
        ? [slot.halves[1]!, slot.halves[0]!]
        : slot.halves
      : null;
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
      {slot.empty || covered ? (
        <Sector {...whole} fill={slot.empty ? grey.track : "url(#cover)"} stroke={grey.hairline} />
      ) : (
        <>
          {bands.rings.map((b, i) => (
            <Sector
              key={i}
              {...place}
              data-ring={b.what}
              inner={b.inner}
              outer={b.outer}
              fill={fill(b.colour)}
            >
              <title>{b.title}</title>
            </Sector>
          ))}
          {halves ? (
            halves.map((h, i) => (
              <Laid
                key={h.paint}
                id={`drawn-${slot.index}-${i}`}
                drawn={h.drawn}
                centre={centre}
                inner={bands.inner}
                outer={bands.outer}
                from={middle - 15 + 15 * i + (i ? 0.2 : 0)}
                to={middle + 15 * i - (i ? 0 : 0.2)}
                colour={h.asPainted}
              >
                <title>{h.name}</title>
              </Laid>
            ))
          ) : (
            <Laid
              {...place}
              id={`drawn-${slot.index}`}
              drawn={slot.drawn}
              inner={bands.inner}
              outer={bands.outer}
              colour={slot.asPainted}
            />
          )}
        </>
      )}
      {!slot.empty && !covered && bands.outer - bands.inner > smallType + 2 && (
        <Values
          of={(halves ?? [slot]).map((h) => h.asPainted)}
          angle={middle}
          r={slot.drawn ? bands.outer - (phone ? 26 : 14) : bands.inner + (phone ? 26 : 14)}
          size={phone ? smallType : 13}
        />
      )}
      {chosen && (
        <>
          <Sector {...whole} fill="none" stroke={grey.paper} strokeWidth={4} />
          <Sector
            centre={centre}
            inner={rim.inner + out - 3}
            outer={rim.outer + out + 3}
            from={middle - 15.3}
            to={middle + 15.3}
            fill="none"
            stroke={grey.ink}
            strokeWidth={2.2}
            strokeLinejoin="round"
          />
        </>
      )}
      {primary && <PrimaryMark angle={middle} r={rim.outer + out + (chosen ? 8 : 4)} />}
      {!slot.empty && !covered && bands.rings.length === 0 && cut(slot.asPainted) && (
        <Corner angle={middle + 15} r={rim.outer + out} />
      )}
      {phone ? (
        <ShortLabel slot={slot} out={out} bare={covered || slot.empty} bold={chosen} />
      ) : (
        <Label slot={slot} out={out} bare={covered || slot.empty} />
      )}
    </g>
  );
}

/** A slot, or half of one, laid flat or drawn out. */
function Laid({
  id,
  drawn,
  colour,
  ...sector
}: {
  id: string;
  drawn?: Slot["drawn"];
  colour: Slot["asPainted"];
} & Omit<Parameters<typeof Sector>[0], "fill">) {
  const { fill } = useColours();
  return (
    <>
      {drawn && (
        <Fade id={id} centre={[0, 0]} inner={sector.inner} outer={sector.outer} drawn={drawn} />
      )}
      <Sector {...sector} fill={drawn ? `url(#${id})` : fill(colour)} />
    </>
  );
}

/** The value of a slot, or of each of its halves, near its inner edge. */
function Values({
  of,
  angle,
  r,
  size,
}: {
  of: Slot["asPainted"][];
  angle: number;
  r: number;
  size: number;
}) {
  return (
    <g aria-hidden fontFamily={figures} fontSize={size} textAnchor="middle" pointerEvents="none">
      {of.map((c, i) => {
        const [x, y] = point(cx, cy, r, angle + 15 * (i - (of.length - 1) / 2));
        return (
          <text key={i} x={x} y={y + size * 0.36} fill={upon(c)}>
            {value(c)}
          </text>
        );
      })}
    </g>
  );
}

/** A rule over a primary's slot. */
function PrimaryMark({ angle, r }: { angle: number; r: number }) {
  const [x1, y1] = point(cx, cy, r, angle - 13);
  const [x2, y2] = point(cx, cy, r, angle + 13);
  return (
    <path
      d={`M${x1} ${y1} A${r} ${r} 0 0 1 ${x2} ${y2}`}
      fill="none"
      stroke={grey.ink}
      strokeWidth={2.4}
    />
  );
}

/** A small triangle of paper: brighter in paint than the screen can show. */
function Corner({ angle, r }: { angle: number; r: number }) {
  const [x, y] = point(cx, cy, r - 4, angle - 1.4);
  const [x2, y2] = point(cx, cy, r - 4, angle - 3.6);
  const [x3, y3] = point(cx, cy, r - 13, angle - 1.4);
  return <path d={`M${x} ${y} L${x2} ${y2} L${x3} ${y3} Z`} fill={grey.paper} />;
}

/** The warm half ruled heavy just inside the rim, the cool half light. */
function Halves({ wheel, ccw }: { wheel: Wheel; ccw: boolean }) {
  const start = wheel.slots.find((s) => s.home === 0)!.index;
  const turn = ccw ? -1 : 1;
  // Clockwise from yellow the painter's circle runs down: 120, 90, 60 ...
  const angle = (hue: number) => 30 * start + turn * (120 - hue);
  const r = rim.inner - 4;
  const [a, b] = [angle(wheel.warm.to), angle(wheel.warm.from)];
  const [x1, y1] = point(cx, cy, r, a);
  const [x2, y2] = point(cx, cy, r, b);
  const sweep = ccw ? 0 : 1;
  const middle = angle(wheel.warm.to) + turn * 90;
  const [wx, wy] = point(cx, cy, 104, middle);
  const [kx, ky] = point(cx, cy, 104, middle + 180);
  const word = {
    textAnchor: "middle" as const,
    fontSize: 13,
    fill: grey.second,
    stroke: grey.paper,
    strokeWidth: 4,
    paintOrder: "stroke",
  };
  return (
    <g aria-label="warm and cool halves">
      <path
        d={`M${x1} ${y1} A${r} ${r} 0 0 ${sweep} ${x2} ${y2}`}
        fill="none"
        stroke={grey.ink}
        strokeWidth={3.5}
      />
      <path
        d={`M${x2} ${y2} A${r} ${r} 0 0 ${sweep} ${x1} ${y1}`}
        fill="none"
        stroke={grey.mark}
        strokeWidth={1.2}
      />
      <text x={wx} y={wy + 4} {...word}>
        warm
      </text>
      <text x={kx} y={ky + 4} {...word}>
        cool
      </text>
    </g>
  );
}

/** Where a slot's rings lie: shades inward, tints outward, the slot itself between. */
function ringBands(slot: Slot, inner: number, outer: number) {
  const r = slot.rings;
  const rungs = (list: RingRung[] | undefined, what: string) =>
    (list ?? []).map((x) => ({
      what,
      colour: x,
      title: `${partsInWords(x.parts)}${x.parts.length > 1 ? "" : ` with ${x.with}`}, value ${value(x)}`,
    }));
  const inward = [...rungs(r?.shades, "shade"), ...(r?.shadow ? rungs([r.shadow], "shadow") : [])];
  const outward = [
    ...rungs(r?.tints, "tint"),
    ...(r?.highlight ? rungs([r.highlight], "highlight") : []),
    ...(r?.wash ? [{ what: "wash", colour: r.wash, title: "a wash" }] : []),
  ];
  const n = inward.length + outward.length;
  const thick = (outer - inner) / (n === 0 ? 1 : n + 2);
  const own = { inner: inner + inward.length * thick, outer: outer - outward.length * thick };
  return {
    ...own,
    rings: [
      ...inward.map((b, i) => ({
        ...b,
        inner: own.inner - (i + 1) * thick,
        outer: own.inner - i * thick - 0.6,
      })),
      ...outward.map((b, i) => ({
        ...b,
        inner: own.outer + i * thick + 0.6,
        outer: own.outer + (i + 1) * thick,
      })),
    ],
  };
}

/** The greys that complements make, each beside both its colours. */
function Middles({
  neutrals,
  onChoose,
}: {
  neutrals: NonNullable<Wheel["neutrals"]>;
  onChoose: (slot: number) => void;
}) {
  const { fill } = useColours();
  return (
    <g aria-label="neutral middles">
      {neutrals.flatMap((n) =>
        [n.a, n.b].map((at) => {
          const [x, y] = point(cx, cy, 88, 30 * at);
          return (
            <g key={at} onClick={() => onChoose(at)} style={{ cursor: "pointer" }}>
              <title>{`${partsInWords(n.parts)}: ${n.hueWord}`}</title>
              <circle cx={x} cy={y} r={17} fill={fill(n)} data-ring="neutral" />
            </g>
          );
        }),
      )}
      <text x={cx} y={cy + 4} textAnchor="middle" fontSize={13} fill={grey.third}>
        neutral middles
      </text>
    </g>
  );
}

function Label({ slot, out, bare }: { slot: Slot; out: number; bare: boolean }) {
  const angle = 30 * slot.index;
  const r = rim.outer + out + 14;
  const [px, py] = point(cx, cy, r, angle);
  const side = slot.index % 6 === 0 ? 0 : slot.index < 6 ? 1 : -1;
  const anchor = side === 0 ? "middle" : side > 0 ? "start" : "end";
  const y = slot.index === 0 ? py - 20 : slot.index === 6 ? py + 16 : py + 2;
  const figuresText = bare
    ? ""
    : slot.halves?.length
      ? slot.halves.map((h) => h.parts[0]!.code).join(" ")
      : ratio(slot.parts);
  const second = { fontFamily: figures, fontSize: 14, fill: grey.third };
  const hasDrop = !bare && slot.verdict !== "neutral";
  const wide = figuresText.length * 7.6;
  const start = side === 0 ? px - (wide + 16) / 2 : side > 0 ? px : px - wide - 16;
  return (
    <g>
      <SlotName
        name={slot.name}
        x={px}
        y={y}
        anchor={anchor}
        size={16}
        weight={slot.kind === "primary" ? 600 : 500}
      />
      {hasDrop && (
        <Drop verdict={slot.verdict} sure={slot.sure} height={13} x={start} y={y + 6.5} />
      )}
      <text
        x={hasDrop ? start + 15 : px}
        y={y + 17}
        textAnchor={hasDrop ? "start" : anchor}
        {...second}
      >
        {figuresText}
      </text>
    </g>
  );
}

/** The verdict in words, with how sure it is where that is less than sure. */
const judged = ({ verdict, sure, could }: Slot) =>
  could ? `${verdict}, ${could}` : sure === "likely" ? `likely ${verdict}` : verdict;

/** On a phone: the short name and the drop. */
function ShortLabel({
  slot,
  out,
  bare,
  bold,
}: {
  slot: Slot;
  out: number;
  bare: boolean;
  bold: boolean;
}) {
  const [px, py] = point(cx, cy, rim.outer + out + 14, 30 * slot.index);
  const side = slot.index % 6 === 0 ? 0 : slot.index < 6 ? 1 : -1;
  const name = shortName(slot.name);
  const drop = bare || slot.verdict === "neutral" ? 0 : 22;
  const wide = name.length * 0.55 * smallType;
  const from = side === 0 ? px - (wide + drop) / 2 : side > 0 ? px : px - wide - drop;
  const y = slot.index === 0 ? py - 4 : slot.index === 6 ? py + 16 : py + 7;
  return (
    <g>
      {drop > 0 && <Drop verdict={slot.verdict} sure={slot.sure} height={21} x={from} y={y - 18} />}
      <text
        x={side < 0 ? px : from + drop}
        y={y}
        textAnchor={side < 0 ? "end" : "start"}
        fontSize={smallType}
        fontWeight={bold || slot.kind === "primary" ? 600 : 400}
        fill={grey.ink}
      >
        {name}
      </text>
    </g>
  );
}

/** One section's undertones: thickness is how much of the possible brightness is left. */
function Ribbon({ section, start, turn }: { section: Section; start: number; turn: 1 | -1 }) {
  const { fill } = useColours();
  const inner = (retention: number) => band.outer - Math.max(1.2, band.thick * retention);
  return (
    <g>
      {section.band.slice(1).map((to, i) => {
        const from = section.band[i]!;
        if (to.at <= from.at) return null;
        const overlap = 0.35 * turn;
        return (
          <Piece
            key={i}
            centre={centre}
            outer={band.outer}
            ends={[
              { angle: start + turn * 120 * from.at, inner: inner(from.retention) },
              { angle: start + turn * 120 * to.at + overlap, inner: inner(to.retention) },
            ]}
            fill={fill(to.undertone)}
          />
        );
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
function Summary({ slots, phone }: { slots: Slot[]; phone: boolean }) {
  const mixed = slots.filter((s) => s.kind !== "primary" && !s.empty);
  const rows = (["clean", "quiet", "softened", "muddy", "neutral"] as const)
    .map((verdict) => ({ verdict, n: mixed.filter((s) => s.verdict === verdict).length }))
    .filter(({ verdict, n }) => (verdict !== "quiet" && verdict !== "neutral") || n > 0);
  const [pitch, head, word] = phone ? [34, smallType, smallType] : [28, 13, 15];
  const top = cy - (pitch / 2) * (rows.length - 3);
  return (
    <g>
      <text x={cx} y={top - 10 - pitch} textAnchor="middle" fontSize={head} fill={grey.third}>
        {mixed.length === 9
          ? "of nine mixtures"
          : mixed.length === 3
            ? "of three mixtures"
            : `of ${mixed.length} mixtures`}
      </text>
      {rows.map(({ verdict, n }, i) => (
        <g key={verdict} fill={n === 0 ? grey.third : grey.ink}>
          <text
            x={cx - 30}
            y={top - 8 + pitch * i}
            textAnchor="end"
            fontSize={phone ? 24 : 20}
            fontFamily={figures}
          >
            {n}
          </text>
          <Drop verdict={verdict} height={18} x={cx - 22} y={top - 23 + pitch * i} />
          <text x={cx} y={top - 8 + pitch * i} fontSize={word}>
            {verdict === "neutral" ? "without hue" : verdict}
          </text>
        </g>
      ))}
    </g>
  );
}
