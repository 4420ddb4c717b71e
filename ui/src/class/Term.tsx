import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { grey } from "../drawing/style";
import { dayAndTime } from "../parts/dates";

type Round = Schemas["ClassRoundEntry"];

/** What is drawn over a term, and how its line is dashed. */
const lines = [
  { of: "hue", says: "hue", dash: undefined },
  { of: "verdict", says: "how bright", dash: "6 3" },
  { of: "mud", says: "start of the mud", dash: "1.5 3" },
] as const;

const [width, height] = [520, 90];

/** How many of a class were right, round by round. */
export function Term({ rounds }: { rounds: Round[] }) {
  const held = rounds.filter((r) => r.score.hue.said > 0).reverse(); // the first one first
  if (held.length < 2) return null;
  const x = (n: number) => (width * n) / (held.length - 1);
  const y = (of: Schemas["ClassCount"]) => height * (1 - of.share);
  const words = held.map(
    (r) =>
      `${dayAndTime.format(new Date(r.made))}: ${lines
        .map((l) => `${l.says} ${Math.round(100 * r.score[l.of].share)} %`)
        .join(", ")}`,
  );
  return (
    <Box component="figure" sx={{ m: 0, mb: 4 }}>
      <svg
        viewBox={`-4 -4 ${width + 8} ${height + 8}`}
        width="100%"
        role="img"
        aria-label={`over the rounds: ${words.join("; ")}`}
        style={{ display: "block", maxHeight: 130 }}
      >
        <path d={`M0 0 H${width} M0 ${height} H${width}`} stroke={grey.hairline} fill="none" />
        {lines.map(({ of, dash }) => (
          <g key={of}>
            <polyline
              points={held.map((r, n) => `${x(n)},${y(r.score[of])}`).join(" ")}
              fill="none"
              stroke={grey.ink}
              strokeWidth={1.8}
              strokeDasharray={dash}
            />
            {held.map((r, n) => (
              <circle key={r.id} cx={x(n)} cy={y(r.score[of])} r={2.6} fill={grey.ink} />
            ))}
          </g>
        ))}
      </svg>
      <Typography component="figcaption" variant="caption">
        Right of all, from {dayAndTime.format(new Date(held[0]!.made))} on: hue (whole line), how
        bright (dashed), start of the mud (dotted); 100 % above
      </Typography>
    </Box>
  );
}
