import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Wheel } from "../api/client";
import { Drop } from "../drawing/Marks";
import { Swatch } from "../drawing/Swatch";
import { HowToMix, PartsBar } from "../parts/Recipe";
import { Value } from "../parts/Value";
import { WheelFigure } from "./WheelFigure";

/** A wheel as others see it: its slots and what becomes of each, nothing to change. */
export function ShownWheel({ wheel }: { wheel: Wheel }) {
  const [chosen, setChosen] = useState(0);
  const n = wheel.slots.length;
  const slot = wheel.slots[chosen % n]!;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 372px" },
        gap: 3,
      }}
    >
      <WheelFigure
        wheel={wheel}
        chosen={chosen}
        below={40}
        onChoose={setChosen}
        onWalk={(by) => setChosen((chosen + by + n) % n)}
        onOpen={() => undefined}
      />
      <Box component="section" aria-label={`step: ${slot.name}`} aria-live="polite">
        <Typography variant="h2">{slot.name}</Typography>
        {slot.empty ? (
          <Typography sx={{ mt: 1 }}>Nothing stands here.</Typography>
        ) : (
          <>
            <Box sx={{ my: 1.5 }}>
              <Swatch colour={slot.asPainted} height={56} />
            </Box>
            <Typography component="p" sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Drop verdict={slot.verdict} sure={slot.sure} height={24} />
              <b>{slot.verdictWords}</b> · <Value of={slot.asPainted} />
            </Typography>
            <Typography sx={{ my: 1 }}>{slot.because}</Typography>
            <PartsBar parts={slot.parts} />
            {slot.mixing.length > 0 && <HowToMix steps={slot.mixing} />}
          </>
        )}
      </Box>
    </Box>
  );
}
