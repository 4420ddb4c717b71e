import { useColours, type Colours } from "./screen";
import type { Shown } from "./shapes";

/** What fills a sector that is drawn out from its rim to its tip, about the middle of a wheel. */
export function Fade({
  id,
  centre: [cx, cy],
  inner,
  outer,
  drawn,
}: {
  id: string;
  centre: readonly [number, number];
  inner: number;
  outer: number;
  /** From the rim to the tip, in even steps. */
  drawn: readonly Shown[];
}) {
  const { fill } = useColours();
  const last = drawn.length - 1;
  return (
    <radialGradient id={id} gradientUnits="userSpaceOnUse" cx={cx} cy={cy} r={outer}>
      {[...drawn].reverse().map((c, i) => (
        <stop key={i} offset={(inner + ((outer - inner) * i) / last) / outer} stopColor={fill(c)} />
      ))}
    </radialGradient>
  );
}

/** The same as a background, from the left to the right. */
export const faded = (drawn: readonly Shown[], { fill }: Pick<Colours, "fill">) =>
  `linear-gradient(to right, ${drawn.map(fill).join(", ")})`;
