import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Counted, Portion } from "../api/client";
import { figures, grey } from "../drawing/style";
import { useColours } from "../drawing/screen";
import { HowToMix } from "./Recipe";
import { Word } from "./Word";

/** Amounts side by side: dabs at true size, everything else in figures. */
export function Amounts({ of, dabs, mm }: { of: Portion[]; dabs: boolean; mm: number }) {
  const { fill } = useColours();
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2.5, alignItems: "flex-end" }}>
      {of.map((t) => (
        <Box
          key={t.paint + t.name}
          role="img"
          aria-label={`${t.says} of the ${t.name}`}
          sx={{ textAlign: "center" }}
        >
          {dabs && <Dab across={t.amount} mm={mm} colour={fill(t)} />}
          {!dabs && (
            <Box sx={{ height: 20, width: "100%", minWidth: 48, bgcolor: fill(t), mb: 0.5 }} />
          )}
          <Box sx={{ fontFamily: figures, fontSize: 18, lineHeight: "24px" }}>
            {dabs ? `${t.amount} mm` : t.says}
          </Box>
          <Typography variant="caption" component="div">
            {t.name}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** A mound of paint seen from above, at true size. */
function Dab({ across, mm, colour }: { across: number; mm: number; colour: string }) {
  const d = across * mm;
  const r = d / 2;
  return (
    <svg
      width={Math.max(d, 4)}
      height={Math.max(d, 4)}
      style={{ display: "block", margin: "0 auto 4px" }}
      aria-hidden
    >
      <circle cx={r} cy={r} r={r} fill={colour} />
      {d > 10 && (
        <path
          d={`M${r * 0.45} ${r * 0.8} A${r * 0.62} ${r * 0.62} 0 0 1 ${r * 1.05} ${r * 0.4}`}
          fill="none"
          stroke="#fff"
          strokeOpacity={0.55}
          strokeWidth={Math.max(1, d / 22)}
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

/** A recipe counted out: what is let down first, the amounts, and how near that comes. */
export function CountedOut({ counted, mm }: { counted: Counted; mm: number }) {
  const { fill } = useColours();
  const dabs = counted.measure === "dabs";
  return (
    <Box
      aria-label="counted out"
      role="group"
      sx={{ display: "flex", flexDirection: "column", gap: 1 }}
    >
      {counted.before.map((pile, i) => (
        <Box key={i} sx={{ borderLeft: `2px solid ${grey.hairline}`, pl: 1.5 }}>
          <Typography variant="caption">
            <Word of="let down" /> first
          </Typography>
          <Amounts of={pile.taken} dabs={dabs} mm={mm} />
        </Box>
      ))}
      {counted.measure !== "looks" && <Amounts of={counted.taken} dabs={dabs} mm={mm} />}
      {counted.measure !== "looks" && (counted.taken.length > 1 || counted.adds) && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Box sx={{ width: 48, height: 20, bgcolor: fill(counted) }} />
          <Typography variant="caption">what that makes</Typography>
        </Box>
      )}
      <HowToMix steps={counted.lines} />
      {counted.measure !== "looks" && (
        <Typography variant="caption" sx={{ fontFamily: figures }}>
          {counted.ml.toFixed(2)} ml; CIEDE2000 {counted.de00.toFixed(1)} from the exact step, a
          hand strays by {counted.spread.toFixed(1)}
        </Typography>
      )}
      {counted.advice && <Typography variant="body2">{counted.advice}</Typography>}
    </Box>
  );
}
