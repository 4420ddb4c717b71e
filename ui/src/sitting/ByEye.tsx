import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, constants, type Schemas, type Sitting } from "../api/client";
import { fill } from "../drawing/screen";
import { OneOf } from "../parts/Choice";
import { Tap } from "./Pieces";
import type { ToKeep } from "./toKeep";

type Chip = Schemas["EyeChip"];

/** A place read by eye: of six chips round a colour the nearest is tapped, and they close in. */
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
  const [round, setRound] = useState(0);
  const [middle, setMiddle] = useState<[number, number, number]>();
  const steps = constants.eyeSteps;
  const got = useQuery({
    queryKey: ["chips", sitting.id, slot, middle, round, wet],
    queryFn: () =>
      answer(
        client.GET("/api/sittings/{id}/chips", {
          params: {
            path: { id: sitting.id },
            query: { slot, off: steps[round], wet, ...(middle && { lab: middle.join(",") }) },
          },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const last = round >= steps.length - 1;
  const begin = (next: string) => {
    setSlot(next);
    setRound(0);
    setMiddle(undefined);
  };
  const choose = (chip: Chip) => {
    if (!last) {
      setMiddle(chip.lab as [number, number, number]);
      setRound(round + 1);
      return;
    }
    onKeep({ slot, lab: chip.lab, source: "eye", wet });
    const at = regions.findIndex((r) => r.id === slot);
    begin(regions[(at + 1) % regions.length]!.id);
  };
  const chip = (c: Chip, wide = false) => (
    <ButtonBase
      key={c.says}
      onClick={() => choose(c)}
      aria-label={c.says}
      sx={{
        display: "flex",
        flexDirection: "column",
        width: "100%",
        maxWidth: wide ? 190 : 120,
        opacity: got.isPlaceholderData ? 0.5 : 1,
      }}
    >
      <Box sx={{ width: "100%", height: wide ? 190 : 92, bgcolor: fill(c) }} />
      <Typography variant="caption">{c.says}</Typography>
    </ButtonBase>
  );
  const chips = got.data?.chips ?? [];
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
          {round + 1} of {steps.length}: hold it beside the screen, on white, and tap the nearest
        </Typography>
      </Box>
      {got.error && <Typography role="alert">{got.error.message}</Typography>}
      {got.data && (
        <Box
          sx={{
            bgcolor: "#fff",
            p: { xs: 1, sm: 3 },
            display: "grid",
            gridTemplateColumns: "minmax(0, 130px) minmax(0, 200px) minmax(0, 130px)",
            columnGap: 1,
            justifyContent: "center",
            alignItems: "center",
            rowGap: 2,
          }}
        >
          {chip(chips[0]!)}
          <Box sx={{ gridRow: "1 / span 3", gridColumn: 2, width: "100%" }}>
            {chip(got.data.middle, true)}
          </Box>
          {chip(chips[1]!)}
          {chip(chips[2]!)}
          {chip(chips[3]!)}
          {chip(chips[4]!)}
          {chip(chips[5]!)}
        </Box>
      )}
      <Tap disabled={round === 0} onClick={() => begin(slot)}>
        begin this place again
      </Tap>
      <Typography variant="caption" component="div">
        A screen is not paint, and an eye is a coarse meter: readings by eye count for less.
      </Typography>
    </Box>
  );
}
