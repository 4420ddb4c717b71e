import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { constants, type Schemas, type Settings, type Selection } from "../api/client";
import { correctQuery, correctToQuery, mixQuery, wheelQuery } from "../api/queries";
import { Tabs } from "../parts/Tabs";
import { OneOf } from "../parts/Choice";
import { InMeasure } from "../parts/InMeasure";
import { colourInAddress } from "../parts/colour";
import { ColourField } from "../parts/ColourField";
import { Value } from "../parts/Value";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Ladder } from "../drawing/Ladder";
import { Both, Swatch } from "../drawing/Swatch";
import { Corrected } from "./Corrected";
import { plainParts, total } from "./parts";
import { asked, mostInPile, usePiles } from "./usePiles";

const typed = "colour";

/** A paint that can be laid on the palette. */
export type OnPalette = {
  id: string;
  name: string;
  masstone: Schemas["Shown"];
  undertone: Schemas["Shown"];
};

/** Free mixing: parts are added, taken back, branched; held beside a slot or a tube, with the least that brings it there. */
export function PileView({
  id,
  system,
  settings,
  paints,
  called,
}: {
  id: number;
  system: Selection;
  settings: Settings;
  paints: OnPalette[];
  /** What a paint is called, also one that is no longer at hand. */
  called: (ref: string) => string;
}) {
  const wheel = useQuery(wheelQuery(id, system, settings));
  const slots = (wheel.data?.slots ?? []).filter((s) => !s.empty);
  const secondary = slots.find((s) => s.kind === "secondary");
  const piles = usePiles(id, secondary && plainParts(secondary));
  const [target, setTarget] = useState("");
  const [text, setText] = useState("");
  const have = asked(piles.now);
  const mix = useQuery(mixQuery(id, have, settings));
  const targets = [
    { value: "", name: "nothing" },
    { value: typed, name: "a colour that was read" },
    ...slots.map((s) => ({ value: `slot ${s.home}`, name: `the ${s.name} of the wheel` })),
    ...paints.map((p) => ({ value: p.id, name: p.name })),
  ];
  const slot = slots.find((s) => `slot ${s.home}` === target);
  const want = slot
    ? plainParts(slot)
    : paints.some((p) => p.id === target)
      ? [{ ref: target, parts: Math.max(1, total(piles.now)) }]
      : [];
  const colour = target === typed ? colourInAddress(text) : "";
  const toParts = useQuery(correctQuery(id, have, asked(want), settings));
  const toColour = useQuery(
    correctToQuery(
      id,
      have,
      colour,
      paints.slice(0, constants.mostStirred).map((p) => p.id),
      settings,
    ),
  );
  const correction = target === typed ? toColour : toParts;
  const aimed = useQuery(mixQuery(id, asked(want), settings));
  const m = piles.now.length > 0 ? mix.data : undefined;
  const aim = toColour.data?.aim;
  const wanted =
    target === typed
      ? aim && { colour: aim, words: aim.words }
      : want.length > 0 && aimed.data
        ? { colour: aimed.data.asPainted, words: aimed.data.words }
        : undefined;
  const looks = m && [
    { what: "masstone", c: m.masstone },
    { what: "as painted", c: m.asPainted },
    { what: "tint, 1 in 9", c: m.tint },
    { what: "wash", c: m.wash },
    { what: "undertone", c: m.undertone },
  ];
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        gap: 4,
        mt: 1,
      }}
    >
      <Box
        component="section"
        aria-label="the pile"
        sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
      >
        <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1 }}>
          <Tabs
            label="which pile"
            words={Object.fromEntries(
              Array.from({ length: piles.count }, (_, i) => [i, `pile ${i + 1}`]),
            )}
            value={String(piles.at)}
            onChoose={(i) => piles.go(Number(i))}
          />
          <Box sx={{ flex: 1 }} />
          <Button color="inherit" size="small" disabled={!piles.canUndo} onClick={piles.undo}>
            undo
          </Button>
          <Button
            color="inherit"
            size="small"
            disabled={piles.now.length === 0}
            onClick={piles.branch}
          >
            branch off
          </Button>
          <Button
            color="inherit"
            size="small"
            disabled={piles.now.length === 0}
            onClick={piles.anew}
          >
            another pile
          </Button>
          <Button
            color="inherit"
            size="small"
            disabled={piles.now.length === 0 && piles.count === 1}
            onClick={piles.wipe}
          >
            wipe off
          </Button>
        </Box>
        <Typography variant="caption">
          {piles.now.length === 0
            ? "press a paint to lay a part of it on the palette"
            : "press a paint to add a part"}
          {piles.now.length >= mostInPile && `; ${mostInPile} paints are as many as a pile takes`}
        </Typography>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
          {paints.map((p) => (
            <Button
              key={p.id}
              color="inherit"
              variant="outlined"
              aria-label={`add a part of ${p.name}`}
              disabled={piles.now.length >= mostInPile && !piles.now.some((q) => q.ref === p.id)}
              onClick={() => piles.add([{ ref: p.id, parts: 1 }])}
              sx={{
                minHeight: 48,
                p: "3px 8px 3px 3px",
                gap: 0.75,
                fontSize: 13,
                lineHeight: "16px",
                borderColor: grey.hairline,
              }}
            >
              <Both paint={p} width={28} height={40} />
              {p.name}
            </Button>
          ))}
        </Box>
        {piles.now.length > 0 && (
          <Box aria-label="parts in the pile">
            {piles.now.map((p) => (
              <Box
                key={p.ref}
                sx={{
                  display: "flex",
                  alignItems: "center",
                  gap: 1,
                  borderTop: `1px solid ${grey.hairline}`,
                  minHeight: 48,
                }}
              >
                <Button
                  color="inherit"
                  aria-label={`a part less of ${called(p.ref)}`}
                  onClick={() => piles.add([{ ref: p.ref, parts: -1 }])}
                  sx={{ minWidth: 48 }}
                >
                  −
                </Button>
                <Typography
                  sx={{ fontFamily: figures, fontWeight: 700, width: 44, textAlign: "right" }}
                >
                  {p.parts}
                </Typography>
                <Button
                  color="inherit"
                  aria-label={`a part more of ${called(p.ref)}`}
                  onClick={() => piles.add([{ ref: p.ref, parts: 1 }])}
                  sx={{ minWidth: 48 }}
                >
                  +
                </Button>
                <Typography
                  sx={{
                    width: 170,
                    overflow: "hidden",
                    textOverflow: "ellipsis",
                    whiteSpace: "nowrap",
                  }}
                >
                  {called(p.ref)}
                </Typography>
                <Box sx={{ flex: 1, height: 12, bgcolor: grey.track }}>
                  <Box
                    sx={{
                      height: 12,
                      width: `${(100 * p.parts) / total(piles.now)}%`,
                      bgcolor: grey.mark,
                    }}
                  />
                </Box>
              </Box>
            ))}
          </Box>
        )}
      </Box>
      <Box
        component="section"
        aria-label="what it makes"
        sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
      >
        {mix.error && piles.now.length > 0 && (
          <Typography role="alert">{mix.error.message}</Typography>
        )}
        {!m ? (
          <Typography sx={{ color: grey.second }}>
            An empty palette. What you lay on it is shown here as it comes from the tube, as
            painted, let down and thinned.
          </Typography>
        ) : (
          <>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1.25 }}>
              <Drop verdict={m.verdict} height={30} />
              <Box sx={{ flex: 1 }}>
                <Typography variant="h2" sx={{ "&::first-letter": { textTransform: "uppercase" } }}>
                  {m.words}
                </Typography>
                <Typography sx={{ color: grey.second }}>
                  <Value of={m.asPainted} />; undertone {m.hueWord}; {m.verdictWords},{" "}
                  <span style={{ fontFamily: figures }}>{m.retention.toFixed(2)}</span> of the
                  possible
                </Typography>
              </Box>
            </Box>
            <Box sx={{ display: "flex" }}>
              {looks!.map((l) => (
                <Box key={l.what} sx={{ flex: 1 }}>
                  <Swatch colour={l.c} height={76} />
                  <Typography variant="caption">{l.what}</Typography>
                </Box>
              ))}
            </Box>
            <Ladder rungs={m.ladder} />
            <InMeasure parts={m.parts} view={settings}>
              {null}
            </InMeasure>
          </>
        )}
        <Box sx={{ borderTop: `2px solid ${grey.ink}`, pt: 0.5 }}>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
            <Typography variant="caption">held beside</Typography>
            <OneOf
              label="held beside"
              shown={targets.find((t) => t.value === target)?.name ?? "nothing"}
              of={targets}
              value={target}
              onChoose={setTarget}
            />
          </Box>
          {target === typed && (
            <Box sx={{ maxWidth: 320, mt: 1 }}>
              <ColourField
                label="as it was read: CIELAB or #hex"
                text={text}
                onText={setText}
                ok={colour !== ""}
              />
            </Box>
          )}
          {wanted && m && (
            <Box sx={{ display: "flex" }}>
              <Box sx={{ flex: 1 }}>
                <Swatch colour={m.asPainted} height={64} />
                <Typography variant="caption">
                  the pile: {m.words} · <Value of={m.asPainted} />
                </Typography>
              </Box>
              <Box sx={{ flex: 1 }}>
                <Swatch colour={wanted.colour} height={64} />
                <Typography variant="caption">
                  wanted: {wanted.words} · <Value of={wanted.colour} />
                </Typography>
              </Box>
            </Box>
          )}
          {correction.error && m && (
            <Typography role="alert">{correction.error.message}</Typography>
          )}
          {correction.data && m && (
            <Corrected got={correction.data} onAdd={(add) => piles.add(add)} />
          )}
        </Box>
      </Box>
    </Box>
  );
}
