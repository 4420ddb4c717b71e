import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { figures, grey } from "./style";

const first = 380;
const last = 730;
const step = 10;
const dashes = [undefined, "7 4"];

/** Reflectance over the wavelengths: masstones below, tints with white above; the second paint is dashed. */
export function SpectrumPlot({
  paints,
  height = 96,
}: {
  paints: { name: string; curves: { mass: number[]; tint: number[] } }[];
  height?: number;
}) {
  const width = 340;
  const left = 22;
  const foot = 16;
  const x = scaleLinear([first, last], [left, width - 2]);
  const y = scaleLinear([0, 1], [height - foot - 2, 4]);
  const curve = line<number>((_, i) => x(first + step * i), y).digits(1);
  const label = { fontFamily: figures, fontSize: 12.6, fill: grey.third };
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={`reflectance of ${paints.map((p) => p.name).join(" and of ")}, masstone and tint, from 380 to 730 nm`}
      style={{ display: "block" }}
    >
      {[0, 0.5, 1].map((r) => (
        <line key={r} x1={left} x2={width} y1={y(r)} y2={y(r)} stroke={grey.hairline} />
      ))}
      <text x={left - 5} y={y(1) + 8} textAnchor="end" {...label}>
        1
      </text>
      <text x={left - 5} y={y(0) + 2} textAnchor="end" {...label}>
        0
      </text>
      {[400, 500, 600, 700].map((nm) => (
        <text key={nm} x={x(nm)} y={height - 2} textAnchor="middle" {...label}>
          {nm}
        </text>
      ))}
      {paints.map((p, i) => (
        <g key={i} fill="none" stroke={grey.ink} strokeDasharray={dashes[i]}>
          <path d={curve(p.curves.mass) ?? undefined} strokeWidth={2.2} />
          <path d={curve(p.curves.tint) ?? undefined} strokeWidth={1} />
        </g>
      ))}
    </svg>
  );
}
