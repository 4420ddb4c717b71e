import { figures, grey } from "./style";

const first = 380;
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
  const x = (i: number) => left + ((width - left - 2) * i) / 35;
  const y = (r: number) => 4 + (height - foot - 6) * (1 - r);
  const line = (values: number[]) =>
    values.map((r, i) => `${i ? "L" : "M"}${x(i).toFixed(1)} ${y(r).toFixed(1)}`).join(" ");
  const label = { fontFamily: figures, fontSize: 12, fill: grey.third };
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
        <text key={nm} x={x((nm - first) / step)} y={height - 2} textAnchor="middle" {...label}>
          {nm}
        </text>
      ))}
      {paints.map((p, i) => (
        <g key={i} fill="none" stroke={grey.ink} strokeDasharray={dashes[i]}>
          <path d={line(p.curves.mass ?? [])} strokeWidth={2.2} />
          <path d={line(p.curves.tint ?? [])} strokeWidth={1} />
        </g>
      ))}
    </svg>
  );
}
