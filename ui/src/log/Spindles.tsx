import type { Schemas } from "../api/client";
import { usePhone } from "../parts/usePhone";
import { figures, grey, text } from "../drawing/style";

const width = 340;
const scale = 150; // from half to twice
const pitch = 44;

/** Each tube's strength over the modelled one, on a scale of doublings: a spindle as wide as what is left open. */
export function Spindles({ strengths }: { strengths: Schemas["LearnedStrength"][] }) {
  const { type } = usePhone();
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
            `${s.name}: ${s.new.toFixed(2)}, from ${s.low.toFixed(2)} to ${s.high.toFixed(2)}, taken for ${s.old.toFixed(2)}`,
        )
        .join("; ")}
      fontFamily={text}
      style={{ display: "block", maxWidth: width }}
    >
      {[
        [0.5, "half"],
        [1, "as modelled"],
        [2, "twice"],
      ].map(([ratio, word]) => (
        <g key={word}>
          <path d={`M${x(Number(ratio))} 18 V${height}`} stroke={grey.hairline} />
          <text
            x={x(Number(ratio))}
            y={12}
            textAnchor="middle"
            fontSize={type(12, width, 1, width)}
            fill={grey.third}
          >
            {word}
          </text>
        </g>
      ))}
      {strengths.map((s, i) => {
        const y = 24 + pitch * i;
        const [low, at, high, old] = [s.low, s.new, s.high, s.old].map(x);
        return (
          <g key={s.paint} opacity={s.settled ? 1 : 0.45}>
            <text y={y + 13} fontSize={14} fill={grey.ink} fontWeight={s.named ? 600 : 400}>
              {s.name}
              {!s.settled && ", not settled"}
            </text>
            <text
              x={width}
              y={y + 13}
              textAnchor="end"
              fontSize={type(12, width, 1, width)}
              fontFamily={figures}
              fill={grey.third}
            >
              {s.old.toFixed(2)} to {s.new.toFixed(2)}
            </text>
            <path
              d={`M${low} ${y + 29} Q${at} ${y + 18} ${high} ${y + 29} Q${at} ${y + 40} ${low} ${y + 29} Z`}
              fill={grey.ink}
            />
            <path d={`M${old} ${y + 21} V${y + 37}`} stroke={grey.mark} strokeWidth={2} />
          </g>
        );
      })}
    </svg>
  );
}
