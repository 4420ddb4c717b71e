import { scaleLinear, scalePoint } from "d3-scale";
import { line } from "d3-shape";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { counted } from "../parts/naming";
import { usePhone } from "../parts/usePhone";
import { figures, grey, text } from "../drawing/style";

type Guesses = Schemas["Guesses"];

/** How the eye has fared: round by round, and section by section. */
export function Fared({ kept }: { kept: Guesses }) {
  if (kept.sections.length === 0) {
    return (
      <Box component="section" aria-label="how the eye has fared">
        <Typography variant="h3">How the eye has fared</Typography>
        <Typography sx={{ color: grey.second }}>
          Nothing yet. What you say of a pairing, here or under a cover, is kept and scored; it is
          drawn here round by round and section by section.
        </Typography>
      </Box>
    );
  }
  const said = kept.sections.reduce((n, s) => n + s.guesses, 0);
  return (
    <Box
      component="section"
      aria-label="how the eye has fared"
      sx={{ display: "flex", flexDirection: "column", gap: 2 }}
    >
      <Box>
        <Typography variant="h3">How the eye has fared</Typography>
        <Typography sx={{ color: grey.second }}>
          {counted(said)} guess{said === 1 ? "" : "es"}; {kept.each} points for one that is right in
          everything.
        </Typography>
      </Box>
      {kept.rounds.length > 0 && <Rounds rounds={[...kept.rounds].reverse()} />}
      <Box>
        <Row head cells={["points", "hue", "bright", "mud"]} name="" share={null} />
        {kept.sections.map((s) => (
          <Row
            key={s.section}
            name={s.section}
            share={s.points / s.outOf}
            cells={[
              s.points / s.outOf,
              s.huesRight / s.guesses,
              s.verdictsRight / s.guesses,
              s.mudRight / s.guesses,
            ].map((v) => `${Math.round(100 * v)}`)}
          />
        ))}
        <Typography variant="caption" component="p" sx={{ mt: 0.5 }}>
          percent right: the hue within a slot, how bright, where the mud starts
        </Typography>
      </Box>
    </Box>
  );
}

function Row({
  name,
  share,
  cells,
  head = false,
}: {
  name: string;
  share: number | null;
  cells: string[];
  head?: boolean;
}) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: {
          xs: "72px minmax(0, 1fr) repeat(4, 40px)",
          sm: "108px minmax(0, 1fr) repeat(4, 44px)",
        },
        alignItems: "center",
        gap: 0.75,
        minHeight: 28,
        borderBottom: `1px solid ${head ? grey.ink : grey.hairline}`,
      }}
    >
      <Typography variant="body2">{name}</Typography>
      <Box sx={{ height: 8, bgcolor: share === null ? "transparent" : grey.track }}>
        {share !== null && <Box sx={{ height: 8, width: `${100 * share}%`, bgcolor: grey.mark }} />}
      </Box>
      {cells.map((c, i) => (
        <Typography
          key={i}
          component="span"
          sx={{
            fontFamily: head ? text : figures,
            fontSize: 12,
            textAlign: "right",
            color: head ? grey.third : grey.ink,
          }}
        >
          {c}
        </Typography>
      ))}
    </Box>
  );
}

/** Score over time: a dot for each round, as high as the share of points it won. */
function Rounds({ rounds }: { rounds: Guesses["rounds"] }) {
  const { phone, wide } = usePhone();
  const width = phone ? Math.min(400, wide) : 400;
  const [height, left, foot] = [132, 34, 112];
  // One round alone stands in the middle.
  const X = scalePoint(rounds.keys(), [left + 12, width - 12]).align(0.5);
  const Y = scaleLinear([0, 1], [foot, 10]);
  const won = (r: Guesses["rounds"][number]) => Y(r.points / r.outOf);
  const day = (made: string) =>
    new Date(made).toLocaleDateString(undefined, { day: "numeric", month: "short" });
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      style={{ maxWidth: width + 40 }}
      role="img"
      aria-label={`rounds: ${rounds.map((r) => `${day(r.made)} ${r.points} of ${r.outOf}`).join("; ")}`}
      fontFamily={figures}
      fontSize={phone ? 12.5 : 11}
      fill={grey.third}
    >
      {[0, 0.5, 1].map((v) => (
        <g key={v}>
          <path d={`M${left} ${Y(v)} H${width}`} stroke={grey.hairline} />
          <text x={left - 6} y={Y(v) + 4} textAnchor="end">
            {100 * v}
          </text>
        </g>
      ))}
      <path
        d={line<Guesses["rounds"][number]>((_, i) => X(i)!, won)(rounds) ?? undefined}
        fill="none"
        stroke={grey.mark}
        strokeWidth={1.4}
      />
      {rounds.map((r, i) => (
        <circle
          key={r.id}
          cx={X(i)}
          cy={won(r)}
          r={r.guesses < r.length ? 3.4 : 4.4}
          fill={r.guesses < r.length ? grey.paper : grey.ink}
          stroke={grey.ink}
          strokeWidth={1.4}
        >
          <title>{`${day(r.made)}: ${r.points} of ${r.outOf}${r.guesses < r.length ? `, ${r.guesses} of ${r.length} pairings` : ""}`}</title>
        </circle>
      ))}
      <text x={X(0)} y={height - 4} textAnchor={rounds.length > 1 ? "start" : "middle"}>
        {day(rounds[0]!.made)}
      </text>
      {rounds.length > 1 && (
        <text x={X(rounds.length - 1)} y={height - 4} textAnchor="end">
          {day(rounds[rounds.length - 1]!.made)}
        </text>
      )}
    </svg>
  );
}
