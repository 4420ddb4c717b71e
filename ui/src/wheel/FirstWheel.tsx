import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Selection } from "../api/client";
import { wheelQuery } from "../api/queries";
import { plainSettings } from "../parts/choices";
import { inParts } from "../parts/naming";
import { WheelFigure } from "./WheelFigure";

/** Six that lean, to be pressed. */
const six: Selection = {
  kind: "split",
  roles: [
    ["PY184", "PY65"],
    ["PR255", "PR122"],
    ["PB29", "PB15:3"],
  ],
  chosen: [[], [], []],
  riders: {},
  note: "",
};

/** A wheel that is alive: a slot that is pressed says what becomes of it. */
export function FirstWheel() {
  const wheel = useQuery({ ...wheelQuery(0, six, plainSettings), retry: false });
  const [chosen, setChosen] = useState(6);
  if (!wheel.data) return null;
  const slot = wheel.data.slots[chosen]!;
  return (
    <Box sx={{ position: "sticky", top: 32 }}>
      <WheelFigure
        wheel={wheel.data}
        chosen={chosen}
        onChoose={setChosen}
        onWalk={(by) => setChosen((chosen + by + 12) % 12)}
        onOpen={() => undefined}
      />
      <Typography aria-live="polite" sx={{ textAlign: "center", px: 2 }}>
        <b>{slot.name}</b>: {inParts(slot.parts)}. {slot.because}
      </Typography>
    </Box>
  );
}
