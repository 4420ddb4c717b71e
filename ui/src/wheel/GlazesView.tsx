import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Slider from "@mui/material/Slider";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import type { Glazes, Paint, Settings, Selection, Wheel } from "../api/client";
import { glazesQuery, type Glazing } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { grey, text } from "../drawing/style";
import { useColours } from "../drawing/screen";
import { Sector } from "../drawing/Ring";
import { point } from "../drawing/polar";
import { usePhone } from "../parts/usePhone";
import { Swatch } from "../drawing/Swatch";

/** Dry layers over paper or a painted ground, and the same wheel built of them. */
export function GlazesView({
  id,
  system,
  settings,
  wheel,
  paints,
}: {
  id: number;
  system: Selection;
  settings: Settings;
  wheel: Wheel;
  paints: Paint[];
}) {
  const refs = [...new Set(system.roles.flat())];
  const nameOf = (ref: string) =>
    wheel.slots.flatMap((s) => s.parts).find((p) => p.paint === ref)?.name ??
    paints.find((p) => p.id === ref)?.name ??
    ref;
  const [layers, setLayers] = useState<Glazing["layers"]>(() =>
    system.roles
      .flat()
      .slice(0, 2)
      .map((paint) => ({ paint, thickness: 0.3 })),
  );
  const [ground, setGround] = useState("");
  const [thickness, setThickness] = useState(0.6);
  const asked = useDeferredValue({ layers, thickness, ...(ground && { ground }) });
  const got = useQuery(glazesQuery(id, system, settings, asked));
  const set = (i: number, l: Partial<Glazing["layers"][number]>) =>
    setLayers(layers.map((o, n) => (n === i ? { ...o, ...l } : o)));
  const move = (i: number) =>
    setLayers(layers.map((l, n) => (n === i - 1 ? layers[i]! : n === i ? layers[i - 1]! : l)));
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", lg: "minmax(0, 300px) minmax(0, 1fr)" },
        gap: 3,
        pt: 1,
      }}
    >
      <Box sx={{ display: "flex", flexDirection: "column", gap: 1 }}>
        <Typography variant="h3">A stack of glazes</Typography>
        {layers.map((l, i) => (
          <Box key={i} sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 0.5 }}>
            <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
              <OneOf
                label={`layer ${i + 1}: ${nameOf(l.paint)}`}
                shown={`${i + 1}  ${nameOf(l.paint)}`}
                of={refs.map((ref) => ({ value: ref, name: nameOf(ref) }))}
                value={l.paint}
                onChoose={(paint) => set(i, { paint })}
              />
              <span>
                {i > 0 && (
                  <Button
                    size="small"
                    color="inherit"
                    onClick={() => move(i)}
                    sx={{ minWidth: { xs: 48, md: 0 } }}
                  >
                    lower
                  </Button>
                )}
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => setLayers(layers.filter((_, n) => n !== i))}
                  sx={{ minWidth: { xs: 48, md: 0 } }}
                >
                  off
                </Button>
              </span>
            </Box>
            <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
              <Slider
                size="small"
                aria-label={`thickness of layer ${i + 1}`}
                min={0.1}
                max={1}
                step={0.05}
                value={l.thickness}
                onChange={(_, v) => set(i, { thickness: v })}
              />
              <Typography variant="caption" sx={{ width: 30 }}>
                {l.thickness.toFixed(2)}
              </Typography>
            </Box>
          </Box>
        ))}
        {layers.length < 4 && (
          <Button
            color="inherit"
            onClick={() => setLayers([...layers, { paint: refs[0]!, thickness: 0.3 }])}
            sx={{ alignSelf: "flex-start", px: 0.5 }}
          >
            one more layer
          </Button>
        )}
        <TextField
          select
          size="small"
          label="over"
          value={ground}
          onChange={(e) => setGround(e.target.value)}
          slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
        >
          <option value="">white paper</option>
          {paints.map((p) => (
            <option key={p.id} value={p.id}>
              {p.id} {p.name}
            </option>
          ))}
        </TextField>
        {got.error && <Typography role="alert">{got.error.message}</Typography>}
        {got.data && <Stack glazes={got.data} />}
      </Box>
      <Box>
        <Box sx={{ display: "flex", alignItems: "center", gap: 2, flexWrap: "wrap" }}>
          <Typography variant="h3">The wheel, glazed</Typography>
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", width: 210 }}>
            <Typography variant="caption" sx={{ whiteSpace: "nowrap" }}>
              thickness {thickness.toFixed(2)}
            </Typography>
            <Slider
              size="small"
              aria-label="thickness of the glazed wheel"
              min={0.1}
              max={2}
              step={0.05}
              value={thickness}
              onChange={(_, v) => setThickness(v)}
            />
          </Box>
        </Box>
        {got.data && <GlazedWheel glazes={got.data} />}
        {got.data && <Brighter glazes={got.data} />}
      </Box>
    </Box>
  );
}

function Stack({ glazes }: { glazes: Glazes }) {
  return (
    <Box aria-label="stack">
      {glazes.stack.map((s, i) => (
        <Box key={i} sx={{ display: "flex", gap: 1, alignItems: "center" }}>
          <Box sx={{ width: 120 }}>
            <Swatch colour={s} plain height={30} />
          </Box>
          <Typography variant="body2">{i === 0 ? s.name : `then ${s.name}`}</Typography>
        </Box>
      ))}
      <Box sx={{ display: "flex", mt: 1 }}>
        {[
          { what: "this order", c: glazes.stack[glazes.stack.length - 1]! },
          { what: "turned over", c: glazes.turned },
          ...(glazes.mixed ? [{ what: "stirred", c: glazes.mixed }] : []),
        ].map((x) => (
          <Box key={x.what} sx={{ flex: 1 }}>
            <Swatch colour={x.c} plain height={44} />
            <Typography variant="caption">{x.what}</Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Outer rim glazed, inner rim mixed in one film of the same thickness. */
function GlazedWheel({ glazes }: { glazes: Glazes }) {
  const { fill } = useColours();
  const c = 215;
  const { phone, type } = usePhone();
  return (
    <svg
      viewBox="0 0 430 430"
      width="100%"
      style={{ maxHeight: phone ? 360 : "calc(100vh - 330px)", display: "block" }}
      fontFamily={text}
      role="img"
      aria-label="the wheel glazed, outside, and mixed, inside"
    >
      {glazes.wheel
        .filter((s) => !s.empty)
        .map((s) => {
          const a = 30 * s.index;
          const [x, y] = point(c, c, 204, a);
          const place = { centre: [c, c], from: a - 15, to: a + 15, gap: 2.5 } as const;
          return (
            <g key={s.index}>
              <title>{`${s.name}: chroma ${s.chroma.toFixed(3)} glazed, ${s.mixedChroma.toFixed(3)} mixed`}</title>
              <Sector {...place} inner={128} outer={190} fill={fill(s.glazed)} />
              <Sector {...place} inner={66} outer={124} fill={fill(s.mixed)} />
              {s.brighter && <circle cx={x} cy={y} r={4} fill={grey.ink} />}
            </g>
          );
        })}
      <text x={c} y={c - 6} textAnchor="middle" fontSize={type(15, 430, 1, 360)} fill={grey.second}>
        outside glazed
      </text>
      <text
        x={c}
        y={c + 14}
        textAnchor="middle"
        fontSize={type(15, 430, 1, 360)}
        fill={grey.second}
      >
        inside mixed
      </text>
    </svg>
  );
}

function Brighter({ glazes }: { glazes: Glazes }) {
  const better = glazes.wheel.filter((s) => s.brighter);
  return (
    <Typography>
      {better.length === 0 ? (
        "None is brighter glazed than mixed."
      ) : (
        <>
          Brighter glazed (●):{" "}
          {better.map((s) => `${s.name} (${s.layers.join(" under ")})`).join(", ")}.
        </>
      )}
    </Typography>
  );
}
