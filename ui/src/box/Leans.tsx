import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Box as PaintBox, KeptTube, Profile } from "../api/client";
import { nameOf } from "../parts/naming";
import { figures, grey, text } from "../drawing/style";
import { Setting } from "../parts/Choice";
import { useColours } from "../drawing/screen";
import { point } from "../drawing/polar";

type Arc = PaintBox["arcs"][number];

/** Every family's paints on one arc, and the whole box on the painter's circle. */
export function Leans({
  box,
  chosen,
  onChoose,
  onSchool,
}: {
  box: PaintBox;
  chosen?: number;
  onChoose: (t: KeptTube) => void;
  onSchool: (warmBlue: Profile["warmBlue"]) => void;
}) {
  const tubes = new Map(box.tubes.map((t) => [t.paint.id, t]));
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: {
          xs: "1fr",
          sm: "repeat(2, minmax(0, 1fr))",
          lg: "repeat(3, minmax(0, 1fr))",
        },
        columnGap: 3,
        rowGap: 0.5,
      }}
    >
      {box.arcs.map((a) => (
        <Dial key={a.family} arc={a} tubes={tubes} chosen={chosen} onChoose={onChoose} />
      ))}
      <Box sx={{ gridColumn: { sm: "span 2" } }}>
        <Circle box={box} chosen={chosen} onChoose={onChoose} />
      </Box>
      <Box>
        <Typography variant="body2" sx={{ color: grey.second, mb: 1.5 }}>
          On the circle a paint stands at the hue of its undertone, the brighter the farther out.
          The heavy half of the rim is the warm one. On the arcs the heavy piece is where a paint
          counts as centred; earths have a hole.
        </Typography>
        <Typography variant="caption" component="p">
          the blue called warm leans to
        </Typography>
        <Setting
          label="the warm blue leans to"
          words={{ violet: "violet", green: "green" }}
          value={box.warmBlue}
          onChoose={onSchool}
        />
        <Typography variant="body2" sx={{ mt: 1, color: grey.second }}>
          Painters teach both. A yellow or a red is warm when it leans to orange. The lean itself is
          measured on the tint of 1 to 9 and does not depend on the word.
        </Typography>
      </Box>
    </Box>
  );
}

const w = 320;
const h = 178;
const cx = w / 2;
const cy = 152;
const r = 88;

/** One family: the hinge on top, a neighbour at either end, the dead band heavy. */
function Dial({
  arc,
  tubes,
  chosen,
  onChoose,
}: {
  arc: Arc;
  tubes: Map<string, KeptTube>;
  chosen?: number;
  onChoose: (t: KeptTube) => void;
}) {
  const { fill } = useColours();
  const turn = (degrees: number) => (-degrees / arc.span) * 78; // as the wheel turns
  const on = (radius: number, degrees: number) => point(cx, cy, radius, turn(degrees));
  const stretch = (from: number, to: number) => {
    const [x1, y1] = on(r, from);
    const [x2, y2] = on(r, to);
    return `M${x1} ${y1} A${r} ${r} 0 0 1 ${x2} ${y2}`;
  };
  const there = (arc.places ?? []).filter((p) => tubes.has(p.paint));
  const marks = there.map(({ paint, degrees }) => {
    const [x, y] = on(r, degrees);
    return { x, y, turn: turn(degrees), label: short(tubes.get(paint)!) };
  });
  const labels = laid(marks);
  const [lx, ly] = on(r, -arc.span);
  const [hx, hy] = on(r, arc.span);
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      width="100%"
      fontFamily={text}
      role="group"
      aria-label={`${arc.family}: where each leans between ${arc.lower} and ${arc.higher}`}
    >
      <path d={stretch(arc.span, -arc.span)} fill="none" stroke={grey.mark} strokeWidth={1.2} />
      <path d={stretch(arc.dead, -arc.dead)} fill="none" stroke={grey.ink} strokeWidth={4} />
      <text x={cx} y={cy - 26} textAnchor="middle" fontSize={20} fontWeight={600} fill={grey.ink}>
        {arc.family}
      </text>
      <text x={cx} y={cy - 4} textAnchor="middle" fontSize={19} fill={grey.third}>
        ±{arc.span}°
      </text>
      <text x={lx} y={ly + 24} textAnchor="middle" fontSize={18} fill={grey.second}>
        {arc.lower}
      </text>
      <text x={hx} y={hy + 24} textAnchor="middle" fontSize={18} fill={grey.second}>
        {arc.higher}
      </text>
      {there.map(({ paint, degrees }, i) => {
        const tube = tubes.get(paint)!;
        const { x, y, label } = marks[i]!;
        const { left, foot, long } = labels[i]!;
        const words = `${label} ${nameOf(tube)}, ${Math.abs(degrees).toFixed(0)} degrees`;
        return (
          <g
            key={paint}
            role="button"
            tabIndex={0}
            aria-label={words}
            onClick={() => onChoose(tube)}
            onKeyDown={(e) => (e.key === "Enter" || e.key === " ") && onChoose(tube)}
            style={{ cursor: "pointer" }}
          >
            <title>{words}</title>
            <line x1={x} y1={y} x2={left + long / 2} y2={foot - 8} stroke={grey.hairline} />
            <circle
              cx={x}
              cy={y}
              r={tube.id === chosen ? 11 : 8.5}
              fill={fill(tube.paint.undertone)}
              stroke={tube.id === chosen ? grey.ink : grey.paper}
              strokeWidth={2}
            />
            {tube.paint.family === "earth" && <circle cx={x} cy={y} r={3} fill={grey.paper} />}
            <text
              x={left}
              y={foot - 4}
              fontSize={18}
              fontFamily={figures}
              fill={grey.ink}
              stroke={grey.paper}
              strokeWidth={4}
              paintOrder="stroke"
            >
              {label}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

type Side = "start" | "middle" | "end";

/** Where labels stand: beside their marks, moved up until they cover neither a mark nor one another. */
function laid(marks: { x: number; y: number; label: string; turn: number }[]) {
  const tall = 17;
  const taken = marks.map((m) => ({ left: m.x - 9, right: m.x + 9, top: m.y - 9, foot: m.y + 9 }));
  return marks.map((m) => {
    const long = 9.6 * m.label.length;
    const side: Side = m.turn > 12 ? "start" : m.turn < -12 ? "end" : "middle";
    const from = side === "start" ? m.x + 13 : side === "end" ? m.x - 13 - long : m.x - long / 2;
    const left = Math.max(2, Math.min(w - long - 2, from));
    let foot = side === "middle" ? m.y - 14 : m.y + 4;
    const meets = () =>
      taken.some(
        (t) =>
          t.left < left + long + 4 && t.right > left - 4 && t.top < foot && t.foot > foot - tall,
      );
    while (meets() && foot > tall) foot -= 3;
    taken.push({ left, right: left + long, top: foot - tall, foot });
    return { left, foot, long };
  });
}

/** What fits beside a mark. */
const short = (t: KeptTube) => {
  const name = t.paint.ci && !t.paint.ci.includes(",") ? t.paint.ci : nameOf(t);
  return name.length > 10 ? `${name.slice(0, 9).trim()}…` : name;
};

/** The painter's circle, yellow up, brightness outward; the warm half is ruled. */
function Circle({
  box,
  chosen,
  onChoose,
}: {
  box: PaintBox;
  chosen?: number;
  onChoose: (t: KeptTube) => void;
}) {
  const { fill } = useColours();
  const c = { x: 240, y: 142, r: 108 };
  const angle = (wheelHue: number) => 120 - wheelHue;
  const around = ["yellow", "orange", "red", "violet", "blue", "green"].map((word, i) => ({
    word,
    angle: 60 * i,
  }));
  const from = angle(box.warm.to);
  const [x1, y1] = point(c.x, c.y, c.r, from);
  const [x2, y2] = point(c.x, c.y, c.r, from + 180);
  const hued = box.tubes.filter((t) => t.paint.lean);
  return (
    <svg
      viewBox="0 0 480 280"
      width="100%"
      fontFamily={text}
      role="group"
      aria-label="the box on the painter's circle"
    >
      <path
        d={`M${x1} ${y1} A${c.r} ${c.r} 0 0 1 ${x2} ${y2}`}
        fill="none"
        stroke={grey.ink}
        strokeWidth={3}
      />
      <path
        d={`M${x2} ${y2} A${c.r} ${c.r} 0 0 1 ${x1} ${y1}`}
        fill="none"
        stroke={grey.mark}
        strokeWidth={1.2}
      />
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={grey.hairline} strokeDasharray="2 5" />
      {around.map(({ word, angle: a }) => {
        const [x, y] = point(c.x, c.y, c.r + 12, a);
        const anchor = a % 180 === 0 ? "middle" : a < 180 ? "start" : "end";
        return (
          <text
            key={word}
            x={x}
            y={y + (a === 0 ? 0 : a === 180 ? 9 : 4)}
            textAnchor={anchor}
            fontSize={18}
            fontWeight={500}
            fill={grey.ink}
          >
            {word}
          </text>
        );
      })}
      {hued.map((t) => {
        const [x, y] = point(
          c.x,
          c.y,
          26 + (c.r - 40) * t.paint.retention,
          angle(t.paint.wheelHue),
        );
        const words = `${nameOf(t)}, ${t.paint.hueWord}`;
        return (
          <g
            key={t.id}
            role="button"
            tabIndex={-1}
            aria-label={words}
            onClick={() => onChoose(t)}
            style={{ cursor: "pointer" }}
          >
            <title>{words}</title>
            <circle
              cx={x}
              cy={y}
              r={t.id === chosen ? 11 : 8.5}
              fill={fill(t.paint.undertone)}
              stroke={t.id === chosen ? grey.ink : grey.paper}
              strokeWidth={2}
            />
          </g>
        );
      })}
    </svg>
  );
}
