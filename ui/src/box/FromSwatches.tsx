import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { answer, client, type Conditions, type Origin } from "../api/client";
import { figures, grey } from "../app/theme";
import { Words } from "../app/Words";
import { Swatch } from "../drawing/Swatch";
import { ColourField } from "../app/ColourField";
import { PhotoSpots } from "../app/PhotoSpots";
import { labWords, typedReading, type Read } from "../app/colour";
import { LabelField, LibrarySelect, Step, SwatchSurface, whiteParts, WhiteParts, whiteShare } from "./Pieces";

const hows = { typed: "typed", photo: "from a photo", meter: "with the meter" } as const;
type How = keyof typeof hows;

/** Masstone and tint, typed, picked from a photo or read with the meter. */
export function FromSwatches({ view, onOrigin }: { view: Conditions; onOrigin: (o: Origin | null) => void }) {
  const [how, setHow] = useState<How>("typed");
  const [surface, setSurface] = useState<Pick<Conditions, "medium" | "judged">>({ medium: "acrylic", judged: "dry" });
  const [white, setWhite] = useState("9");
  const [typed, setTyped] = useState({ mass: "", tint: "" });
  const [picked, setPicked] = useState<{ mass?: Read; tint?: Read }>({});
  const [metered, setMetered] = useState<{ mass?: Read; tint?: Read }>({});
  const [pigments, setPigments] = useState<string[]>([]);
  const hear = useCallback((ids: string[]) => setPigments(ids), []);

  const given = {
    typed: { mass: typedReading(typed.mass, surface), tint: typedReading(typed.tint, surface) },
    photo: { mass: picked.mass?.reading ?? null, tint: picked.tint?.reading ?? null },
    meter: { mass: metered.mass?.reading ?? null, tint: metered.tint?.reading ?? null },
  }[how];
  const parts = whiteParts(white);
  const origin: Origin | null =
    given.mass && given.tint && parts !== null ? { kind: "swatches", mass: given.mass, tint: given.tint, whiteShare: whiteShare(parts), pigments } : null;
  useEffect(() => onOrigin(origin));

  return (
    <Box>
      <Step n={1} title="Paint two swatches, both so thick that nothing shows through">
        <Typography sx={{ color: grey.second, mb: 0.5 }}>One straight from the tube, one let down with titanium white. Let both dry in the same way.</Typography>
        <WhiteParts text={white} onText={setWhite} />
        <SwatchSurface
          value={surface}
          onChange={(s) => {
            setSurface(s);
            setMetered({});
          }}
        />
      </Step>
      <Step n={2} title="Their colours">
        <Words label="colours are" words={hows} value={how} onChoose={setHow} />
        {how === "typed" && (
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, mt: 1 }}>
            <ColourField label="masstone: CIELAB or #hex" text={typed.mass} onText={(mass) => setTyped({ ...typed, mass })} ok={given.mass !== null} />
            <ColourField label="tint: CIELAB or #hex" text={typed.tint} onText={(tint) => setTyped({ ...typed, tint })} ok={given.tint !== null} />
          </Box>
        )}
        {how === "photo" && <PhotoSpots surface={surface} reads={{ mass: "masstone", tint: "tint" }} onPicked={setPicked} />}
        {how === "meter" && <MeterReadings surface={surface} parts={parts} read={metered} onRead={setMetered} />}
        {how === "photo" && <Found read={picked} />}
      </Step>
      <Step n={3} title="What its label says, if anything">
        <Box sx={{ mt: 1 }}>
          <LabelField view={view} label="pigment codes" onPigments={hear} helper="for the cautions, staining and lightfastness only; the colour comes from the swatches" />
        </Box>
      </Step>
    </Box>
  );
}

/** The colours that were found, in figures. */
function Found({ read }: { read: { mass?: Read; tint?: Read } }) {
  const rows = [
    { what: "masstone", r: read.mass },
    { what: "tint", r: read.tint },
  ];
  return (
    <Box sx={{ display: "flex", gap: 3, mt: 1, flexWrap: "wrap" }}>
      {rows.map(({ what, r }) => (
        <Box key={what} sx={{ display: "flex", gap: 1, alignItems: "center" }} aria-label={`${what} found`}>
          {r && <Swatch colour={r.colour} width={36} height={28} />}
          <Typography variant="body2">
            {what}{" "}
            <Box component="span" sx={{ fontFamily: figures }}>
              {r ? labWords(r.colour.lab) : "not yet"}
            </Box>
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** The stand-in meter: what lies under it is chosen, then it measures with noise and drift like a real one. */
function MeterReadings({ surface, parts, read, onRead }: {
  surface: Pick<Conditions, "medium" | "judged">;
  parts: number | null;
  read: { mass?: Read; tint?: Read };
  onRead: (r: { mass?: Read; tint?: Read }) => void;
}) {
  const [under, setUnder] = useState("");
  const measure = useMutation({
    mutationFn: async (what: "mass" | "tint") => {
      const swatch = what === "mass" ? `${under}=1` : `${under}=1 PW6=${parts ?? 9}`;
      return { what, got: await answer(client.POST("/api/meter/readings", { body: { swatch, ...surface } })) };
    },
    onSuccess: ({ what, got }) => onRead({ ...read, [what]: got }),
  });
  const last = measure.data?.got;
  return (
    <Box sx={{ mt: 1, display: "flex", flexDirection: "column", gap: 1 }}>
      <Typography variant="body2" sx={{ color: grey.second }}>
        A stand-in for a hand-held meter ships with Gyrophane. It has no lens, so say what lies under it.
      </Typography>
      <LibrarySelect
        label="under the meter lies"
        value={under}
        onChange={(p) => {
          setUnder(p.id);
          onRead({});
        }}
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="outlined" disabled={!under || measure.isPending} onClick={() => measure.mutate("mass")}>
          read the masstone
        </Button>
        <Button variant="outlined" disabled={!under || parts === null || measure.isPending} onClick={() => measure.mutate("tint")}>
          read the tint
        </Button>
      </Box>
      {measure.error && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {measure.error.message}
        </Typography>
      )}
      <Found read={read} />
      {last && (
        <Typography variant="caption">
          {last.device}: mean of {last.repeats} measurements, which differ by {(100 * last.spread).toFixed(2)} % of full reflectance at the most.
        </Typography>
      )}
    </Box>
  );
}
