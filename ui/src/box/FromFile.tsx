import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { sendFile, type Conditions, type Origin, type Reading, type Samples } from "../api/client";
import { FileButton } from "../parts/FileButton";
import { grey } from "../drawing/style";
import { Swatch } from "../drawing/Swatch";
import { LabelField, Step, SwatchSurface, whiteParts, WhiteParts, whiteShare } from "./Pieces";

/** Spectra from a file; the painter says which row is the masstone and which the tint. */
export function FromFile({
  view,
  onOrigin,
}: {
  view: Conditions;
  onOrigin: (o: Origin | null) => void;
}) {
  const [surface, setSurface] = useState<Pick<Conditions, "medium" | "judged">>({
    medium: "acrylic",
    judged: "dry",
  });
  const [white, setWhite] = useState("9");
  const [rows, setRows] = useState<{ mass: number; tint: number }>({ mass: -1, tint: -1 });
  const [pigments, setPigments] = useState<string[]>([]);
  const [name, setName] = useState("");
  const hear = useCallback((ids: string[]) => setPigments(ids), []);
  const read = useMutation({
    mutationFn: (f: File) => sendFile<Samples>("spectra", f),
    onSuccess: (got) => setRows(guess(got.samples ?? [])),
  });
  const samples = read.data?.samples ?? [];
  const reading = (i: number): Reading | null => {
    const s = samples[i];
    return s ? { spectrum: s.spectrum, source: "instrument", ...surface } : null;
  };
  const [mass, tint] = [reading(rows.mass), reading(rows.tint)];
  const parts = whiteParts(white);
  const origin: Origin | null =
    mass && tint && parts !== null
      ? { kind: "swatches", mass, tint, whiteShare: whiteShare(parts), pigments }
      : null;
  useEffect(() => onOrigin(origin));
  const held = Math.max(0, ...[rows.mass, rows.tint].map((i) => samples[i]?.held ?? 0));
  return (
    <Box>
      <Step n={1} title="A file with measured spectra of a masstone and a tint">
        <Typography sx={{ color: grey.second, mb: 1 }}>
          CGATS.17 text or CSV; reflectance in percent or from 0 to 1, at least from 400 to 700 nm,
          every 5 to 20 nm.
        </Typography>
        <FileButton
          label="choose a spectral file"
          accept=".txt,.cgats,.csv,.it8,text/plain,text/csv"
          onFile={(f) => {
            setName(f.name);
            setRows({ mass: -1, tint: -1 });
            read.mutate(f);
          }}
        />
        {read.error && (
          <Typography role="alert" sx={{ fontWeight: 500, mt: 1 }}>
            {name}: {read.error.message}
          </Typography>
        )}
        {read.data && (
          <Typography variant="body2" sx={{ mt: 1 }}>
            {name}: {read.data.format}, {samples.length}{" "}
            {samples.length === 1 ? "spectrum" : "spectra"}, {read.data.grid},{" "}
            {read.data.percent ? "in percent" : "from 0 to 1"}.
            {held > 0 && ` ${held} bands at the ends were not measured and are held flat.`}
          </Typography>
        )}
      </Step>
      {samples.length > 0 && (
        <Step n={2} title="Which is which">
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, mt: 1.5 }}>
            {(["mass", "tint"] as const).map((what) => (
              <Box key={what}>
                <TextField
                  select
                  size="small"
                  fullWidth
                  label={what === "mass" ? "masstone" : "tint"}
                  value={rows[what]}
                  onChange={(e) => setRows({ ...rows, [what]: Number(e.target.value) })}
                  slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
                >
                  <option value={-1} disabled>
                    choose
                  </option>
                  {samples.map((s, i) => (
                    <option key={i} value={i}>
                      {s.name}
                    </option>
                  ))}
                </TextField>
                <Chosen sample={samples[rows[what]]} />
              </Box>
            ))}
          </Box>
          <WhiteParts text={white} onText={setWhite} />
          <SwatchSurface value={surface} onChange={setSurface} />
        </Step>
      )}
      <Step n={samples.length > 0 ? 3 : 2} title="What its label says, if anything">
        <Box sx={{ mt: 1 }}>
          <LabelField
            view={view}
            label="pigment codes"
            onPigments={hear}
            helper="for the cautions, staining and lightfastness only; the colour comes from the spectra"
          />
        </Box>
      </Step>
    </Box>
  );
}

function Chosen({ sample }: { sample?: Samples["samples"][number] }) {
  return sample ? <Swatch colour={sample.colour} height={36} /> : null;
}

/** By their names, or the first two. */
function guess(samples: { name: string }[]): { mass: number; tint: number } {
  const named = (words: RegExp) => samples.findIndex((s) => words.test(s.name));
  const tint = named(/tint|white|1:\d/i);
  const mass = named(/mass/i);
  return {
    mass: mass >= 0 ? mass : samples.findIndex((_, i) => i !== tint),
    tint: tint >= 0 ? tint : samples.findIndex((_, i) => i !== Math.max(mass, 0)),
  };
}
