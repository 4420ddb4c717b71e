import { grey } from "./style";

/** A slot's name beside the rim: a long one of several words stands in two lines. */
export function SlotName({
  name,
  x,
  y,
  anchor,
  size = 14,
  weight = 400,
}: {
  name: string;
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
  size?: number;
  weight?: number;
}) {
  const lines = linesOf(name);
  const at = size * (lines.some((l) => l.length > 14) ? 0.8 : name.length > 12 ? 0.9 : 1);
  return (
    <text textAnchor={anchor} fontSize={at} fontWeight={weight} fill={grey.ink}>
      {lines.map((line, n) => (
        <tspan key={n} x={x} y={y + (n - (lines.length - 1)) * at * 1.1}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

/** A name in two lines where it is long and has a space near its middle. */
function linesOf(name: string): string[] {
  if (name.length <= 12) return [name];
  const spaces = [...name].flatMap((c, i) => (c === " " ? [i] : []));
  if (spaces.length === 0) return [name];
  const at = spaces.reduce((a, b) =>
    Math.abs(a - name.length / 2) <= Math.abs(b - name.length / 2) ? a : b,
  );
  return [name.slice(0, at), name.slice(at + 1)];
}

/** A slot's name where there is little room: "y-g" for yellow-green. */
export function shortName(name: string): string {
  if (name.length <= 7) return name;
  const words = name.split(/[-\s]+/);
  return words.length > 1 ? words.map((w) => w[0]).join("-") : `${name.slice(0, 6)}…`;
}
