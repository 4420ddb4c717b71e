import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Sitting } from "../api/client";
import { OneOf } from "../parts/Choice";
import { Found } from "../parts/MeterReadings";
import type { ToKeep } from "./toKeep";

/** A place read with the meter; the stand-in lays the place's recipe under itself. */
export function ByMeter({
  sitting,
  wet,
  onKeep,
}: {
  sitting: Sitting;
  wet: boolean;
  onKeep: (reading: ToKeep) => void;
}) {
  const { regions, medium } = sitting.plan;
  const [slot, setSlot] = useState(regions[0]!.id);
  const region = regions.find((r) => r.id === slot)!;
  const measure = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/meter/readings", {
          body: {
            swatch: region.swatch,
            medium,
            judged: wet ? "wet" : "dry",
          },
        }),
      ),
  });
  const got = measure.data;
  return (
    <Box
      component="section"
      aria-label="by meter"
      sx={{ display: "flex", flexDirection: "column", gap: 1.5, alignItems: "flex-start" }}
    >
      <OneOf
        label="of the place"
        shown={region.label}
        of={regions.map((r) => ({ value: r.id, name: r.label }))}
        value={slot}
        onChoose={(v) => {
          setSlot(v);
          measure.reset();
        }}
      />
      <Typography variant="body2">
        A stand-in for a hand-held meter ships with Gyrophane. It has no lens: it measures the
        recipe of the place, of library paints.
      </Typography>
      <Button
        variant="outlined"
        color="inherit"
        disabled={measure.isPending}
        onClick={() => measure.mutate()}
        sx={{ minHeight: 56 }}
      >
        read the {region.label}
      </Button>
      {measure.error && <Typography role="alert">{measure.error.message}</Typography>}
      {got && (
        <>
          <Found read={{ mass: got }} reads={{ mass: region.label }} />
          <Button
            variant="contained"
            sx={{ minHeight: 56 }}
            onClick={() => {
              onKeep({ slot, lab: got.colour.lab, source: "instrument", wet });
              const at = regions.findIndex((r) => r.id === slot);
              setSlot(regions[(at + 1) % regions.length]!.id);
              measure.reset();
            }}
          >
            keep it
          </Button>
        </>
      )}
    </Box>
  );
}
