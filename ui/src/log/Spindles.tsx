import type { Schemas } from "../api/client";
import { grey, text } from "../drawing/style";

const width = 340;
const scale = 150; // from half to twice
const pitch = 46;

/** Each tube's strength on a scale of doublings: a spindle as wide as what is left open. */
export function Spindles({ strengths }: { strengths: Schemas["LearnedStrength"][] }) {
  const x = (ratio: number) =>
    width / 2 + (scale / 2) * Math.max(-2, Math.min(2, Math.log2(Math.max(ratio, 0.01))));
  const height = 24 + pitch * strengths.length;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={strengths
        .map(
          (s) =>
            `${s.name}: ${(s.new / s.old).toFixed(2)} times, from ${(s.low / s.old).toFixed(2)} to ${(s.high / s.old).toFixed(2)}`,
        )
        .join("; ")}
      fontFamily={text}
      style={{ display: "block", maxWidth: width }}
    >
      {[
        [0.5, "half"],
        [1, "as taken"],
        [2, "twice"],
      ].map(([ratio, word]) => (
        <g key={word}>
          <path d={`M${x(Number(ratio))} 18 V${height}`} stroke={grey.hairline} />
          <text x={x(Number(ratio))} y={12} textAnchor="middle" fontSize={12} fill={grey.third}>
            {word}
          </text>
        </g>
      ))}
      {strengths.map((s, i) => {
        const y = 24 + pitch * i;
        const [low, at, high] = [s.low, s.new, s.high].map((v) => x(v / s.old));
        return (
          <g key={s.paint} opacity={s.settled ? 1 : 0.45}>
            <text y={y + 14} fontSize={14} fill={grey.ink}>
              {s.name}
              {!s.settled && ", not settled"}
            </text>
            <path
              d={`M${low} ${y + 30} Q${at} ${y + 18} ${high} ${y + 30} Q${at} ${y + 42} ${low} ${y + 30} Z`}
              fill={grey.ink}
            />
          </g>
        );
      })}
    </svg>
  );
}
