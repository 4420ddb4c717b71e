import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { RingRung, Settings, Selection, Wheel } from "../api/client";
import { neutralsQuery } from "../api/queries";
import { figures, grey } from "../drawing/style";
import { inParts } from "../parts/naming";
import { InMeasure } from "../parts/InMeasure";
import { Setting } from "../parts/Choice";
import { counts, ratio } from "./words";
import { Swatch } from "../drawing/Swatch";
import { value } from "../drawing/value";

/** Where complements cancel, the darkest dark, value and earths. */
export function NeutralsView({
  id,
  system,
  settings,
  wheel,
  slot,
  onChoose,
}: {
  id: number;
  system: Selection;
  settings: Settings;
  wheel: Wheel;
  slot: number;
  onChoose: (slot: number) => void;
}) {
  const [steps, setSteps] = useState<5 | 7>(7);
  const got = useQuery(neutralsQuery(id, system, settings, slot, steps));
  if (!got.data)
    return got.error ? <Typography role="alert">{got.error.message}</Typography> : null;
  const n = got.data;
  const name = (i: number) => wheel.slots[i]!.name;
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1.75, pt: 1, pr: 1 }}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "repeat(6, minmax(0, 1fr))",
          alignItems: "start",
          gap: 1,
        }}
      >
        {n.pairs.map((p) => (
          <Box
            key={p.a}
            component="button"
            onClick={() => onChoose(p.a)}
            sx={{
              p: 0,
              border: 0,
              bgcolor: "transparent",
              color: grey.ink,
              font: "inherit",
              textAlign: "left",
              cursor: "pointer",
              outline: p.a === slot || p.b === slot ? `2px solid ${grey.ink}` : "none",
              outlineOffset: 3,
            }}
          >
            <Swatch colour={p} plain height={54} />
            <Typography variant="body2" sx={{ fontWeight: 500, mt: 0.5, lineHeight: "16px" }}>
              {name(p.a)} <span style={{ fontWeight: 400 }}>with</span> {name(p.b)}
            </Typography>
            <Typography variant="caption" component="p" sx={{ fontFamily: figures }}>
              {ratio(p.parts)} · C* {p.chroma.toFixed(0)} · value {value(p)}
            </Typography>
            {!p.neutral && (
              <Typography variant="caption" component="p" sx={{ color: grey.ink }}>
                no grey: {p.words}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {n.balance ? (
        <Box>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 2, flexWrap: "wrap" }}>
            <Typography variant="h3">
              {name(slot)} to {name(n.balance.b)}
            </Typography>
            <Setting
              label="steps of intensity"
              words={{ "5": "5 steps", "7": "7 steps" }}
              value={String(steps) as "5" | "7"}
              onChoose={(s) => setSteps(Number(s) as 5 | 7)}
            />
          </Box>
          <Scale rungs={n.intensity} />
          <Typography sx={{ mt: 0.5 }}>
            {n.balance.neutral ? "Most neutral" : "Nearest to a grey"} at{" "}
            <b>{ratio(n.balance.parts)}</b>: {n.balance.hueWord}, C*ab {n.balance.chroma.toFixed(1)}
            . {n.balance.says}
            {n.balance.neutraliser && (
              <>
                {" "}
                The {n.balance.neutraliser.paint} brings it to one:{" "}
                {inParts(n.balance.neutraliser.parts)}, C*ab{" "}
                {n.balance.neutraliser.chroma.toFixed(1)}.
              </>
            )}
          </Typography>
        </Box>
      ) : (
        <Typography>This slot or its complement is empty: there is nothing to balance.</Typography>
      )}
      {n.balance && (
        <InMeasure parts={n.balance.parts} view={settings}>
          {null}
        </InMeasure>
      )}
      {n.values.length > 0 && (
        <Box>
          <Typography variant="h3">Values of {name(slot)}</Typography>
          <Scale rungs={n.values} lightness />
        </Box>
      )}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr", lg: "minmax(0, 5fr) minmax(0, 7fr)" },
          gap: 3,
        }}
      >
        <Box aria-label="darkest dark">
          <Typography variant="h3">The darkest dark</Typography>
          <Box sx={{ display: "grid", gridTemplateColumns: "2fr 1fr 2fr 1fr", mt: 0.5 }}>
            {[n.dark.shown, n.dark.tint, n.dark.black, n.dark.blackTint].map((c, i) => (
              <Swatch key={i} colour={c} plain height={46} />
            ))}
          </Box>
          <Box sx={{ display: "flex", justifyContent: "space-between" }}>
            <Typography variant="caption">mixed, and its tint</Typography>
            <Typography variant="caption">tube black, and its tint</Typography>
          </Box>
          <Typography variant="body2">
            {inParts(n.dark.parts)}; L* {n.dark.lab[0]!.toFixed(0)} beside{" "}
            {n.dark.blackL.toFixed(0)} of the black.{" "}
            {n.dark.neutral ? "Neutral" : "Not neutral: the greyest that is dark"}; white brings out{" "}
            {n.dark.hidden}.
          </Typography>
        </Box>
        <Box aria-label="earths">
          <Typography variant="h3">Earths from these primaries</Typography>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: "repeat(3, minmax(0, 1fr))",
              gap: 1,
              mt: 0.5,
            }}
          >
            {n.earths.map((e) => (
              <Box key={e.name}>
                <Box sx={{ display: "flex" }}>
                  <Swatch colour={e.target} plain height={46} />
                  <Swatch colour={e.shown} plain height={46} />
                </Box>
                <Typography variant="body2" sx={{ fontWeight: 500 }}>
                  {e.name}
                </Typography>
                <Typography variant="caption" component="p" sx={{ fontFamily: figures }}>
                  {inParts(e.parts)}
                </Typography>
                <Typography variant="caption">CIEDE2000 {e.de.toFixed(1)}</Typography>
              </Box>
            ))}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

function Scale({ rungs, lightness = false }: { rungs: RingRung[]; lightness?: boolean }) {
  return (
    <Box sx={{ display: "flex", gap: "2px" }}>
      {rungs.map((r, i) => (
        <Box key={i} sx={{ flex: 1, minWidth: 0 }} title={`${r.hueWord}, value ${value(r)}`}>
          <Swatch colour={r} plain height={44} />
          <Typography
            variant="caption"
            component="p"
            sx={{ fontFamily: figures, textAlign: "center", whiteSpace: "nowrap" }}
          >
            {lightness ? `${(r.massL / 10).toFixed(1)}${r.reached ? "" : "·"}` : counts(r.parts)}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
