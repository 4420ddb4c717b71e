import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import type { Pair } from "../api/client";
import { differenceQuery } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { inParts } from "../parts/naming";
import { InMeasure } from "../parts/InMeasure";
import { Value } from "../parts/Value";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Ladder } from "../drawing/Ladder";
import { Swatch } from "../drawing/Swatch";
import { placesOf, shareOf } from "./along";
import { Plane } from "./Plane";

/** A mixture or a tube that is held beside what is shown. */
export type Held = { parts: string[]; label: string };

/** What stands at a place of the way, beside another that is held. */
export function PointCard({
  wheel,
  pair,
  taint,
  sample,
  held,
  tubes,
  onHold,
}: {
  wheel: number;
  pair: Pair;
  taint: number;
  sample: number;
  held: Held | null;
  tubes: { value: string; name: string }[];
  onHold: (h: Held | null) => void;
}) {
  const look = placesOf(pair, taint)[sample]!;
  const share = shareOf(pair, taint);
  const here = useDeferredValue(look.mix);
  const difference = useQuery(differenceQuery(wheel, here.split(","), held?.parts ?? [], pair));
  const s = pair.samples[sample]!;
  const ladder = pair.ladders.reduce((a, b) =>
    Math.abs(b.sample - sample) < Math.abs(a.sample - sample) ? b : a,
  ).rungs;
  const other = held && difference.data?.held;
  return (
    <Box
      component="section"
      aria-label="place"
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Box>
        <Typography variant="caption">
          {share > 0
            ? `with ${(100 * share).toFixed(1)} % of ${pair.third!.name} in it`
            : "at this place"}
        </Typography>
        <InMeasure parts={s.parts} view={pair}>
          <Typography variant="h2" sx={{ fontFamily: figures, fontSize: 24 }}>
            {inParts(s.parts)}
          </Typography>
        </InMeasure>
      </Box>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
        <Drop verdict={look.verdict} height={28} />
        <Box>
          <Typography sx={{ fontSize: 18, fontWeight: 600, lineHeight: "22px" }}>
            {look.verdictWords}
          </Typography>
          <Typography variant="caption" sx={{ fontFamily: figures }}>
            {look.verdict === "neutral"
              ? "no brightness of its own"
              : `undertone, ${look.retention.toFixed(2)} of the possible`}
          </Typography>
        </Box>
        <Typography sx={{ flex: 1, textAlign: "right" }}>{look.hueWord}</Typography>
      </Box>
      <Box sx={{ display: "flex" }}>
        {other && (
          <Box sx={{ flex: 1 }}>
            <Swatch colour={other.asPainted} height={72} />
          </Box>
        )}
        <Box sx={{ flex: 1 }}>
          <Swatch colour={look.asPainted} height={72} />
        </Box>
        <Box sx={{ flex: other ? 0.5 : 0.7 }}>
          <Swatch colour={look.undertone} height={72} />
        </Box>
      </Box>
      <Typography variant="caption" component="p" sx={{ mt: -1 }}>
        {other ? `held: ${held.label}, ${other.words} · here: ` : "as painted: "}
        {look.words} · <Value of={look.asPainted} /> · undertone
      </Typography>
      {held && difference.data && (
        <Typography aria-label="beside it" sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}>
          Beside the held one: {difference.data.words}.{" "}
          <span style={{ fontFamily: figures, fontSize: 12 }}>
            CIEDE2000 {difference.data.de00.toFixed(1)}
          </span>
        </Typography>
      )}
      <Ladder rungs={ladder} />
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
        <Button
          variant="outlined"
          color="inherit"
          size="small"
          onClick={() =>
            onHold(held ? null : { parts: look.mix.split(","), label: inParts(s.parts) })
          }
        >
          {held ? "put the held one back" : "hold this beside another"}
        </Button>
        <OneOf
          label="hold a tube beside it"
          shown="hold a tube"
          of={tubes}
          value={held?.parts[0]?.split("=")[0] ?? ""}
          onChoose={(ref) =>
            onHold({ parts: [`${ref}=1`], label: tubes.find((t) => t.value === ref)?.name ?? ref })
          }
        />
      </Box>
      <Typography>
        {pair.because} {pair.darkens}
      </Typography>
      <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
        <Plane pair={pair} sample={sample} />
        <Box sx={{ flex: 1 }}>
          <Typography variant="caption" component="p">
            hue and chroma: grey in the middle, yellow up
          </Typography>
          {pair.mudZones.map((z) => (
            <Zone key={z.from} word="Muddy" zone={z} />
          ))}
          {pair.dullStretches
            .filter((z) => !pair.mudZones.some((m) => m.from === z.from && m.to === z.to))
            .map((z) => (
              <Zone key={z.from} word="Dull" zone={z} />
            ))}
        </Box>
      </Box>
    </Box>
  );
}

/** A stretch of the way in parts and hue words. */
function Zone({ word, zone }: { word: string; zone: Pair["mudZones"][number] }) {
  return (
    <Typography variant="body2" sx={{ mt: 0.75, borderTop: `1px solid ${grey.hairline}`, pt: 0.5 }}>
      {word} from {inParts(zone.fromParts)} ({zone.fromWord}) to {inParts(zone.toParts)} (
      {zone.toWord}
      ); {zone.lowest.toFixed(2)} at the lowest.
    </Typography>
  );
}
