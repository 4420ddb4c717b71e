import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { memo, useDeferredValue, useState } from "react";
import type { Pair } from "../api/client";
import { correctQuery, locateQuery } from "../api/queries";
import { colourInAddress } from "../parts/colour";
import { ColourField } from "../parts/ColourField";
import { Value } from "../parts/Value";
import { figures, grey } from "../drawing/style";
import { Swatch } from "../drawing/Swatch";
import { Corrected } from "./Corrected";
import { plainParts } from "./parts";
import { asked } from "./usePiles";

const number = (text: string) => {
  const v = Number(text.replace(",", "."));
  return text.trim() !== "" && Number.isFinite(v) && v >= 0 && v <= 1000 ? v : null;
};

/** From what is on the palette to the place that is shown: counted in parts, or found from how it looks. */
export const Overshot = memo(function Overshot({
  wheel,
  pair,
  sample,
  called,
}: {
  wheel: number;
  pair: Pair;
  sample: number;
  called: (ref: string) => string;
}) {
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  const [look, setLook] = useState("");
  const colour = colourInAddress(look);
  const found = useQuery(locateQuery(wheel, pair.a.id, pair.b.id, colour, pair));
  const place = useDeferredValue(sample); // a drag does not wait
  const want = plainParts(pair.samples[place] ?? pair.samples[0]!);
  const [x, y] = [number(a), number(b)];
  const have = [
    { ref: pair.a.id, parts: x ?? 0 },
    { ref: pair.b.id, parts: y ?? 0 },
  ].filter((p) => p.parts > 0);
  const correction = useQuery(
    correctQuery(wheel, x !== null && y !== null ? asked(have) : [], asked(want), pair),
  );
  const c = have.length > 0 ? correction.data : undefined;
  const take = () => {
    const parts = plainParts(found.data!);
    const of = (ref: string) => parts.find((p) => p.ref === ref)?.parts ?? 0;
    setA(String(Number(of(pair.a.id).toFixed(2))));
    setB(String(Number(of(pair.b.id).toFixed(2))));
  };
  const field = (ref: string, value: string, set: (v: string) => void) => (
    <TextField
      size="small"
      label={`parts of ${called(ref)}`}
      value={value}
      error={value !== "" && number(value) === null}
      onChange={(e) => set(e.target.value)}
      slotProps={{
        htmlInput: { inputMode: "decimal", maxLength: 8, autoComplete: "off" },
        inputLabel: { shrink: true }, // a long name is not cut
      }}
      sx={{ flex: "1 1 190px", maxWidth: 260 }}
    />
  );
  return (
    <Box
      component="section"
      aria-label="I overshot"
      sx={{ borderTop: `2px solid ${grey.ink}`, mt: 2, pt: 0.5 }}
    >
      <Typography variant="caption" component="p" sx={{ mb: 1 }}>
        I overshot: on the palette there is about this, and the place shown is wanted
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "flex-start" }}>
        {field(pair.a.id, a, setA)}
        {field(pair.b.id, b, setB)}
        <Box sx={{ width: 230 }}>
          <ColourField
            label="or how it looks: CIELAB or #hex"
            text={look}
            onText={setLook}
            ok={colour !== ""}
          />
        </Box>
      </Box>
      {found.error && <Typography role="alert">{found.error.message}</Typography>}
      {found.data && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mb: 1 }}>
          <Swatch colour={found.data.read} width={44} height={36} />
          <Swatch colour={found.data.asPainted} width={44} height={36} />
          <Typography sx={{ flex: 1 }}>
            {found.data.says}{" "}
            <span style={{ fontFamily: figures, fontSize: 12 }}>
              CIEDE2000 {found.data.de00.toFixed(1)}
            </span>
          </Typography>
          <Button variant="outlined" color="inherit" disabled={!found.data.fits} onClick={take}>
            take these parts
          </Button>
        </Box>
      )}
      {correction.error && <Typography role="alert">{correction.error.message}</Typography>}
      {c?.want && (
        <>
          <Box sx={{ display: "flex" }}>
            {[
              { what: "on the palette", m: c.have },
              { what: "wanted", m: c.want },
              { what: "after that", m: c.pile },
            ].map(({ what, m }) => (
              <Box key={what} sx={{ flex: 1 }}>
                <Swatch colour={m.asPainted} height={40} />
                <Typography variant="caption">
                  {what}: {m.words} · <Value of={m.asPainted} />
                </Typography>
              </Box>
            ))}
          </Box>
          <Corrected got={c} />
        </>
      )}
    </Box>
  );
});
