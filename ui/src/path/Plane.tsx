import type { Pair } from "../api/client";
import { grey } from "../drawing/style";
import { useColours } from "../drawing/screen";
import { point } from "../drawing/polar";

const size = 200;
const reach = 0.3;

/** The way of the undertones in the plane of hue and chroma: the middle is grey, the painter's circle with yellow up. */
export function Plane({ pair, sample }: { pair: Pair; sample: number }) {
  const { fill } = useColours();
  const c = size / 2;
  const at = (i: number) => {
    const s = pair.samples[i]!;
    return point(
      c,
      c,
      (Math.min(reach, s.undertone.oklch[1]!) / reach) * (c - 8),
      120 - s.wheelHue,
    );
  };
  const [x, y] = at(sample);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      width="100%"
      style={{ maxWidth: size, display: "block" }}
      role="img"
      aria-label="hue and chroma of the undertone along the way"
    >
      {[0.1, 0.2, 0.3].map((r) => (
        <circle
          key={r}
          cx={c}
          cy={c}
          r={(r / reach) * (c - 8)}
          fill="none"
          stroke={grey.hairline}
        />
      ))}
      <path
        d={pair.samples
          .map(
            (_, i) =>
              `${i ? "L" : "M"}${at(i)
                .map((v) => v.toFixed(1))
                .join(" ")}`,
          )
          .join(" ")}
        fill="none"
        stroke={grey.mark}
        strokeWidth={1}
      />
      {pair.samples.map((s, i) => {
        const [px, py] = at(i);
        return <circle key={i} cx={px} cy={py} r={3.4} fill={fill(s.undertone)} />;
      })}
      <circle cx={x} cy={y} r={6.5} fill="none" stroke={grey.ink} strokeWidth={2} />
    </svg>
  );
}
