import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useCallback, useEffect, useState } from "react";
import type { Conditions, Origin } from "../api/client";
import { grey } from "../drawing/style";
import { Tabs } from "../parts/Tabs";
import { ColourField } from "../parts/ColourField";
import { Found, MeterReadings } from "../parts/MeterReadings";
import { PhotoSpots } from "../parts/PhotoSpots";
import { typedReading, type Read } from "../parts/colour";
import { LabelField, Step, SwatchSurface, whiteParts, WhiteParts, whiteShare } from "./Pieces";

const hows = { typed: "typed", photo: "from a photo", meter: "with the meter" } as const;
type How = keyof typeof hows;
const reads = { mass: "masstone", tint: "tint" };

/** Masstone and tint, typed, picked from a photo or read with the meter. */
export function FromSwatches({
  view,
  onOrigin,
}: {
  view: Conditions;
  onOrigin: (o: Origin | null) => void;
}) {
  const [how, setHow] = useState<How>("typed");
  const [surface, setSurface] = useState<Pick<Conditions, "medium" | "judged">>({
    medium: "acrylic",
    judged: "dry",
  });
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
    given.mass && given.tint && parts !== null
      ? {
          kind: "swatches",
          mass: given.mass,
          tint: given.tint,
          whiteShare: whiteShare(parts),
          pigments,
        }
      : null;
  useEffect(() => onOrigin(origin));

  return (
    <Box>
      <Step n={1} title="Paint two swatches, both so thick that nothing shows through">
        <Typography sx={{ color: grey.second, mb: 0.5 }}>
          One straight from the tube, one let down with titanium white. Let both dry in the same
          way.
        </Typography>
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
        <Tabs label="colours are" words={hows} value={how} onChoose={setHow} />
        {how === "typed" && (
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, mt: 1 }}>
            <ColourField
              label="masstone: CIELAB or #hex"
              text={typed.mass}
              onText={(mass) => setTyped({ ...typed, mass })}
              ok={given.mass !== null}
            />
            <ColourField
              label="tint: CIELAB or #hex"
              text={typed.tint}
              onText={(tint) => setTyped({ ...typed, tint })}
              ok={given.tint !== null}
            />
          </Box>
        )}
        {how === "photo" && <PhotoSpots surface={surface} reads={reads} onPicked={setPicked} />}
        {how === "meter" && (
          <MeterReadings
            surface={surface}
            reads={reads}
            parts={parts}
            read={metered}
            onRead={setMetered}
          />
        )}
        {how === "photo" && <Found read={picked} reads={reads} />}
      </Step>
      <Step n={3} title="What its label says, if anything">
        <Box sx={{ mt: 1 }}>
          <LabelField
            view={view}
            label="pigment codes"
            onPigments={hear}
            helper="for the cautions, staining and lightfastness only; the colour comes from the swatches"
          />
        </Box>
      </Step>
    </Box>
  );
}
