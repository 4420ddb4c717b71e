import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { memo, useDeferredValue, type ReactNode } from "react";
import type { Pair } from "../api/client";
import { edgesQuery } from "../api/queries";
import { placeOf, useAtHand, useHolding, type Thing } from "../parts/holding";
import { inParts } from "../parts/naming";
import { InMeasure } from "../parts/InMeasure";
import { InTubes } from "../parts/InTubes";
import { Value } from "../parts/Value";
import { Word } from "../parts/Word";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Ladder } from "../drawing/Ladder";
import { Swatch } from "../drawing/Swatch";
import { useSquint } from "../drawing/screen";
import { nearest } from "../parts/nearest";
import { placesOf, shareOf } from "./along";
import { Plane } from "./Plane";

/** What stands at a place of the way, beside a single colour that is held. */
export const PointCard = memo(function PointCard({
  wheel,
  pair,
  taint,
  sample,
  from,
  to,
}: {
  wheel: number;
  pair: Pair;
  taint: number;
  sample: number;
  from: string;
  to: string;
}) {
  useSquint();
  const look = placesOf(pair, taint)[sample]!;
  const share = shareOf(pair, taint);
  const here = useDeferredValue(look.mix);
  const s = pair.samples[sample]!;
  const step = pair.steps.find((one) => nearest(pair, one.at) === sample);
  const view = { medium: pair.medium, light: pair.light, judged: pair.judged };
  const name = `${inParts(s.parts)} of ${from} to ${to}`;
  const point = (mix: string): Thing => ({
    name,
    view,
    row: { wheel, places: [{ name, parts: mix.split(",") }] },
  });
  useAtHand([
    point(here),
    {
      name: `the way from ${from} to ${to}`,
      view,
      row: {
        wheel,
        places: [
          { name: from, parts: [`${pair.a.id}=1`] },
          ...pair.steps.map((step) => placeOf(inParts(step.parts), step)),
          { name: to, parts: [`${pair.b.id}=1`] },
        ],
      },
    },
  ]);
  const { held } = useHolding();
  const single = held?.row.places?.length === 1 ? held : null;
  const edges = useQuery({
    ...edgesQuery(point(here).row, single?.row ?? {}, view, false),
    enabled: !!single,
  });
  const ladder = pair.ladders.reduce((a, b) =>
    Math.abs(b.sample - sample) < Math.abs(a.sample - sample) ? b : a,
  ).rungs;
  const other = single && edges.data?.pairs[0]?.other;
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
        {share === 0 && step && <InTubes of={step} />}
      </Box>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
        <Drop verdict={look.verdict} sure={share === 0 ? step?.sure : undefined} height={28} />
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
            <Swatch colour={other} height={72} />
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
        {other ? `held: ${single.name}, ${other.words} · here: ` : "as painted: "}
        {look.words} · <Value of={look.asPainted} /> · undertone
      </Typography>
      {single && edges.data && (
        <Typography aria-label="beside it" sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}>
          Beside the held one: {edges.data.says}.{" "}
          <span style={{ fontFamily: figures, fontSize: 12 }}>
            CIEDE2000 {edges.data.pairs[0]!.de00.toFixed(1)}
          </span>
        </Typography>
      )}
      <Ladder rungs={ladder} />
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
            <Zone key={z.from} word="Muddy" zone={z}>
              {z.begins && z.begins[1]! > z.begins[0]! && (
                <>
                  {" "}
                  In <Word of="most tubes" /> it begins between {partsAt(pair, z.begins[0]!)} and{" "}
                  {partsAt(pair, z.begins[1]!)}.
                </>
              )}
            </Zone>
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
});

/** The parts of the place that lies nearest. */
const partsAt = (pair: Pair, at: number) => inParts(pair.samples[nearest(pair, at)]!.parts);

/** A stretch of the way in parts and hue words. */
function Zone({
  word,
  zone,
  children,
}: {
  word: string;
  zone: Pair["mudZones"][number];
  children?: ReactNode;
}) {
  return (
    <Typography variant="body2" sx={{ mt: 0.75, borderTop: `1px solid ${grey.hairline}`, pt: 0.5 }}>
      {word} from {inParts(zone.fromParts)} ({zone.fromWord}) to {inParts(zone.toParts)} (
      {zone.toWord}
      ); {zone.lowest.toFixed(2)} at the lowest.{children}
    </Typography>
  );
}
