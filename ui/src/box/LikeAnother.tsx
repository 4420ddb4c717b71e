import Box from "@mui/material/Box";
import Slider from "@mui/material/Slider";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Conditions, Origin } from "../api/client";
import { paintsQuery } from "../api/queries";
import { figures, grey } from "../drawing/style";
import { PaintStrip } from "../drawing/PaintStrip";
import { LibrarySelect } from "../parts/LibrarySelect";
import { Step } from "./Pieces";

/** A library paint made stronger, weaker, or moved along the spectrum. */
export function LikeAnother({
  view,
  onOrigin,
}: {
  view: Conditions;
  onOrigin: (o: Origin | null) => void;
}) {
  const [paint, setPaint] = useState("");
  const [octave, setOctave] = useState(0);
  const [shift, setShift] = useState(0);
  const factor = Number((2 ** octave).toFixed(3));
  const origin: Origin | null = paint ? { kind: "adjusted", paint, factor, shift } : null;
  useEffect(() => onOrigin(origin));
  const paints = useQuery(paintsQuery(view));
  const from = paints.data?.find((p) => p.id === paint);
  return (
    <Box>
      <Step n={1} title="Which paint it is like">
        <Box sx={{ mt: 1.5, display: "flex", gap: 2, alignItems: "center", flexWrap: "wrap" }}>
          <LibrarySelect label="like" value={paint} onChange={(p) => setPaint(p.id)} />
          {from && <PaintStrip paint={from} width={150} height={38} />}
        </Box>
      </Step>
      <Step n={2} title="But stronger or weaker">
        <Dragged
          label="times as strong"
          value={octave}
          min={-2}
          max={2}
          step={0.1}
          shown={`${factor.toFixed(2)} times`}
          ends={["weaker", "stronger"]}
          onChange={setOctave}
        />
      </Step>
      <Step n={3} title="But with its absorption moved">
        <Dragged
          label="shift of the absorption"
          value={shift}
          min={-20}
          max={20}
          step={1}
          shown={`${shift > 0 ? "+" : ""}${shift} nm`}
          ends={["to shorter waves", "to longer waves"]}
          onChange={setShift}
        />
        <Typography variant="body2" sx={{ color: grey.second }}>
          Longer turns a yellow toward orange, a red toward violet and a blue toward green.
        </Typography>
      </Step>
    </Box>
  );
}

function Dragged({
  label,
  value,
  min,
  max,
  step,
  shown,
  ends,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  shown: string;
  ends: [string, string];
  onChange: (v: number) => void;
}) {
  return (
    <Box sx={{ maxWidth: 480, mt: 0.5 }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
        <Slider
          size="small"
          aria-label={label}
          min={min}
          max={max}
          step={step}
          marks={[{ value: 0 }]}
          value={value}
          onChange={(_, v) => onChange(v)}
        />
        <Typography sx={{ fontFamily: figures, width: 100, flex: "none" }}>{shown}</Typography>
      </Box>
      <Box
        sx={{
          display: "flex",
          justifyContent: "space-between",
          mr: "116px",
          color: grey.third,
          fontSize: 12,
        }}
      >
        <span>{ends[0]}</span>
        <span>{ends[1]}</span>
      </Box>
    </Box>
  );
}
