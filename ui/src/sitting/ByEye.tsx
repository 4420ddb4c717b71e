import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Sitting } from "../api/client";
import { OneOf } from "../parts/Choice";
import { HeldRibbons } from "../parts/HeldRibbons";
import { Tap } from "./Pieces";
import type { ToKeep } from "./toKeep";
import { usePlaceRibbons } from "./usePlaceRibbons";

/** A place read by eye: held in three ribbons until it disappears, then once more in narrower ones. */
export function ByEye({
  sitting,
  wet,
  onKeep,
}: {
  sitting: Sitting;
  wet: boolean;
  onKeep: (reading: ToKeep) => void;
}) {
  const { regions } = sitting.plan;
  const [slot, setSlot] = useState(regions[0]!.id);
  const eye = usePlaceRibbons(sitting.id, slot, wet);
  const begin = (next: string) => {
    setSlot(next);
    eye.again();
  };
  const keep = () => {
    if (!eye.lab) return;
    onKeep({ slot, lab: eye.lab, source: "eye", wet });
    begin(regions[(regions.findIndex((r) => r.id === slot) + 1) % regions.length]!.id);
  };
  return (
    <Box component="section" aria-label="by eye">
      <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
        <OneOf
          label="of the place"
          shown={regions.find((r) => r.id === slot)?.label ?? ""}
          of={regions.map((r) => ({ value: r.id, name: r.label }))}
          value={slot}
          onChoose={begin}
        />
        <Typography role="status">
          {eye.round + 1} of {eye.rounds}: hold it on the bar, on white, and draw each ribbon until
          it disappears
        </Typography>
      </Box>
      {eye.error && <Typography role="alert">{eye.error.message}</Typography>}
      {eye.held && <HeldRibbons of={eye.held} off={eye.off} onMove={eye.move} />}
      <Box sx={{ display: "flex", gap: 2, alignItems: "center", mt: 1 }}>
        <Button
          variant={eye.last ? "contained" : "outlined"}
          color={eye.last ? "primary" : "inherit"}
          disableElevation
          disabled={!eye.lab}
          sx={{ minHeight: 56 }}
          onClick={eye.last ? keep : eye.closer}
        >
          {eye.last ? "keep this" : "closer"}
        </Button>
        <Tap disabled={eye.round === 0 && !eye.moved} onClick={() => begin(slot)}>
          begin this place again
        </Tap>
      </Box>
      <Typography variant="caption" component="div">
        A screen is not paint, and an eye is a coarse meter: readings by eye count for less.
      </Typography>
    </Box>
  );
}
