import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useAddress } from "../app/useAddress";
import { figures, grey } from "../app/theme";
import { Drop } from "../drawing/Marks";
import { fill } from "../drawing/screen";
import { Swatch } from "../drawing/Swatch";
import { LineMark } from "./Marks";
import type { Comparison } from "./shapes";

/** The twelve steps of every system in rows, the same step one below the other; one of them large. */
export function StepsView({ got }: { got: Comparison }) {
  const { search, show } = useAddress();
  const at = Math.max(0, Math.min(11, Number(search.get("step") ?? 2) || 0));
  return (
    <Box component="section" aria-label="step beside step" sx={{ mt: 1 }}>
      <Box sx={{ overflowX: "auto" }}>
        {got.systems.map((s, i) => (
          <Box key={i} sx={{ display: "grid", gridTemplateColumns: "180px repeat(12, minmax(44px, 1fr))", gap: "2px", alignItems: "end", mb: 1 }}>
            <Box sx={{ pr: 1, minWidth: 0 }}>
              <LineMark index={i} />
              <Typography variant="subtitle2" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
                {s.name}
              </Typography>
            </Box>
            {s.slots.map((slot, n) => (
              <Box key={n} component="button" aria-label={`${s.name}: ${slot.name}, ${slot.empty ? "empty" : `${slot.verdict}, ${slot.words}`}`} aria-pressed={n === at} onClick={() => show({ step: String(n) })} sx={{ p: 0, border: 0, borderBottom: `3px solid ${n === at ? grey.ink : "transparent"}`, bgcolor: "transparent", cursor: "pointer", minWidth: 0 }}>
                <svg width="100%" height={52} aria-hidden style={{ display: "block" }}>
                  <rect width="100%" height={52} fill={slot.empty ? grey.track : fill(slot.asPainted)} />
                </svg>
                <Box component="span" sx={{ display: "flex", justifyContent: "center", height: 18, pt: "2px" }}>
                  {!slot.empty && <Drop verdict={slot.verdict} height={14} />}
                </Box>
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: `repeat(${got.systems.length}, minmax(0, 1fr))`, gap: "3px", mt: 2, borderTop: `2px solid ${grey.ink}`, pt: 1 }}>
        {got.systems.map((s, i) => {
          const slot = s.slots[at]!;
          return (
            <Box key={i} aria-label={`${slot.name} of ${s.name}`}>
              {!slot.empty && (
                <>
                  <Swatch colour={slot.asPainted} height={150} />
                  <Swatch colour={slot.undertone} height={44} />
                </>
              )}
              <Typography variant="h3" sx={{ mt: 1 }}>
                {slot.name}
              </Typography>
              <Typography variant="caption" component="p">
                {s.name}
              </Typography>
              {slot.empty ? (
                <Typography>Nothing fills it.</Typography>
              ) : (
                <>
                  <Typography sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
                    <Drop verdict={slot.verdict} height={17} /> {slot.verdict} <span style={{ fontFamily: figures }}>{slot.retention.toFixed(2)}</span>
                  </Typography>
                  <Typography sx={{ fontFamily: figures, fontSize: 13 }}>{slot.parts.map((p) => `${p.parts} ${p.code}`).join(" : ")}</Typography>
                  <Typography variant="body2">{slot.words}</Typography>
                </>
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
