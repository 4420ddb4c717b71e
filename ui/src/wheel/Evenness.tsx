import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Wheel } from "../api/client";
import { figures, grey } from "../drawing/style";
import { ratio } from "./words";
import { Word } from "../parts/Word";

/** The jumps from slot to slot, the largest marked, and what mends it. */
export function Evenness({ wheel, onChoose }: { wheel: Wheel; onChoose: (slot: number) => void }) {
  const there = wheel.slots.filter((s) => !s.empty);
  const most = Math.max(0.001, ...there.map((s) => s.jump));
  const w = 168;
  const h = 40;
  const step = w / 12;
  const median = h - (h * wheel.medianJump) / most;
  return (
    <Box
      aria-label="evenness"
      sx={{
        position: { md: "absolute" },
        right: 0,
        bottom: 0,
        width: w,
        pointerEvents: "none",
        "& g[role], & [data-word]": { pointerEvents: "auto" },
      }}
    >
      <svg
        width={w}
        height={h + 2}
        viewBox={`0 0 ${w} ${h + 2}`}
        role="group"
        aria-label="jumps from slot to slot"
      >
        <line x1={0} x2={w} y1={median} y2={median} stroke={grey.mark} strokeDasharray="2 3" />
        {there.map((s) => {
          const tall = Math.max(1.5, (h * s.jump) / most);
          const next = wheel.slots[(s.index + 1) % 12]!.name;
          return (
            <g
              key={s.index}
              role="button"
              tabIndex={-1}
              aria-label={`${s.name} to ${next}: ${s.jump.toFixed(2)}`}
              onClick={() => onChoose(s.index)}
              style={{ cursor: "pointer" }}
            >
              <title>{`${s.name} to ${next}: ${s.jump.toFixed(2)}`}</title>
              <rect x={s.index * step} y={0} width={step} height={h} fill="transparent" />
              <rect
                x={s.index * step + 3}
                y={h - tall}
                width={step - 6}
                height={tall}
                fill={s.jumps ? grey.ink : grey.mark}
              />
            </g>
          );
        })}
      </svg>
      <Typography variant="caption" component="p">
        {wheel.mend ? (
          <>
            largest <Word of="jump" />: {wheel.slots[wheel.mend.from]!.name} to{" "}
            {wheel.slots[wheel.mend.to]!.name}; between them{" "}
            <Box component="span" sx={{ fontFamily: figures, color: grey.ink }}>
              {ratio(wheel.mend.parts)}
            </Box>{" "}
            {wheel.mend.parts.map((p) => p.name).join(" to ")}
          </>
        ) : (
          <>
            even: no step <Word of="jump">jumps</Word>
          </>
        )}
      </Typography>
    </Box>
  );
}
