import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { Ingredient, Settings, Slot, Wheel } from "../api/client";
import { paintName } from "../app/paintName";
import { figures, grey } from "../app/theme";
import { Drop, LeanArrow } from "../drawing/Marks";
import { Swatch } from "../drawing/Swatch";
import { share } from "./words";

/** What stands in one slot: how to mix it, what becomes of it, and why. */
export function StepCard({ wheel, slot, settings, onChoose, onSwap }: {
  wheel: Wheel;
  slot: Slot;
  settings: Settings;
  onChoose: (slot: number) => void;
  onSwap: () => void;
}) {
  const primary = slot.kind === "primary";
  return (
    <Box component="section" aria-label={`step: ${slot.name}`} sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}>
      <Box>
        <Typography variant="caption">
          slot {slot.index + 1} · {slot.kind}
        </Typography>
        <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", gap: 1 }}>
          <Typography variant="h1" sx={{ fontSize: slot.name.length > 11 ? 27 : slot.name.length > 9 ? 32 : 46, "&::first-letter": { textTransform: "uppercase" } }}>
            {slot.name}
          </Typography>
          <Box sx={{ display: "flex", alignItems: "center", gap: 1.25, flex: "none" }}>
            <Drop verdict={slot.verdict} height={34} />
            <Box>
              <Typography data-verdict={slot.verdict} sx={{ fontSize: 20, lineHeight: "24px", fontWeight: 600 }}>
                {slot.verdict}
              </Typography>
              <Typography variant="caption" sx={{ fontFamily: figures }}>
                {share(slot.retention)} of the possible
              </Typography>
            </Box>
          </Box>
        </Box>
      </Box>
      <Because sentence={slot.because} />
      <Looks slot={slot} settings={settings} />
      {primary ? <PrimaryOnly slot={slot} onSwap={onSwap} /> : <PartsBar parts={slot.parts} />}
      {!primary && (
        <Box component="ol" aria-label="how to mix it" sx={{ m: 0, p: 0, listStyle: "none", fontSize: 13, lineHeight: "18px" }}>
          {slot.mixing.map((line, i) => (
            <Box component="li" key={line} sx={{ display: "flex", gap: 1.5 }}>
              <Box component="span" sx={{ fontFamily: figures, color: grey.third, flex: "none" }}>
                {i + 1}
              </Box>
              {line}
            </Box>
          ))}
        </Box>
      )}
      <Ladder slot={slot} medium={settings.medium} />
      <Box sx={{ display: "flex", gap: 3 }}>
        <Neighbours wheel={wheel} slot={slot} onChoose={onChoose} />
        <Across slot={wheel.slots[slot.complement]!} onChoose={onChoose} />
      </Box>
    </Box>
  );
}

function Because({ sentence }: { sentence: string }) {
  const end = sentence.indexOf(". ");
  return (
    <Typography>
      <b>{end < 0 ? sentence : sentence.slice(0, end + 1)}</b>
      {end >= 0 && sentence.slice(end + 1)}
    </Typography>
  );
}

function Looks({ slot, settings }: { slot: Slot; settings: Settings }) {
  const looks = [
    { key: "dry", colour: slot.dry, grow: 3, label: "dry, as painted", now: settings.judged === "dry" },
    { key: "wet", colour: slot.wet, grow: 2, label: "wet", now: settings.judged === "wet" },
    { key: "undertone", colour: slot.undertone, grow: 3, label: "undertone", now: false },
  ];
  return (
    <Box sx={{ display: "flex" }}>
      {looks.map((l) => (
        <Box key={l.key} sx={{ flex: l.grow }}>
          <Swatch colour={l.colour} height={64} />
          <Typography variant="caption" sx={{ color: l.now ? grey.ink : grey.third, fontWeight: l.now ? 600 : 400 }}>
            {l.label}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** Parts to scale, one cell a part where they can be counted. */
function PartsBar({ parts }: { parts: Ingredient[] }) {
  const total = parts.reduce((sum, p) => sum + p.parts, 0);
  return (
    <Box aria-label="parts">
      <Box sx={{ display: "flex", height: 30, gap: "3px" }}>
        {parts.map((p) => (
          <Box key={p.paint} sx={{ flex: `${p.parts} 0 6px`, display: "flex", gap: total <= 14 ? "2px" : 0 }}>
            {Array.from({ length: total <= 14 ? p.parts : 1 }, (_, i) => (
              <Box key={i} sx={{ flex: 1 }}>
                <Swatch colour={p} plain height={30} />
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2, mt: 0.5 }}>
        {parts.map((p, i) => (
          <Typography key={p.paint} variant="body2" sx={{ textAlign: i === 0 ? "left" : "right" }}>
            <Box component="span" sx={{ fontFamily: figures, fontWeight: 700 }}>
              {p.parts}
            </Box>{" "}
            {p.letDown ? `of ${p.paint} let down 1:${p.letDown.parts} in ${p.letDown.in}` : `${p.paint} ${paintName(p.name).name}`}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

function PrimaryOnly({ slot, onSwap }: { slot: Slot; onSwap: () => void }) {
  const paint = slot.parts[0]!;
  return (
    <Box>
      <Typography variant="subtitle2">
        {paint.paint} {paint.name}
      </Typography>
      {slot.lean && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 1, mt: 0.5 }}>
          <LeanArrow degrees={slot.lean.degrees} centred={slot.lean.toward === "centred"} />
          <Typography>
            {slot.lean.toward === "centred" ? "centred" : `leans to ${slot.lean.toward}`}{" "}
            <Box component="span" sx={{ fontFamily: figures, fontSize: 13 }}>
              {Math.abs(slot.lean.degrees).toFixed(0)}°
            </Box>
            {slot.lean.inWash && `; in a wash to ${slot.lean.inWash}`}
          </Typography>
        </Box>
      )}
      <Button variant="outlined" size="large" onClick={onSwap} sx={{ mt: 1.5 }}>
        swap this paint
      </Button>
    </Box>
  );
}

function Ladder({ slot, medium }: { slot: Slot; medium: string }) {
  const water = medium === "watercolour";
  return (
    <Box>
      <Typography variant="caption">{water ? "thinned with water" : "let down with white"}</Typography>
      <Box sx={{ display: "flex", gap: "2px", mt: 0.25 }}>
        {slot.ladder.map((r) => (
          <Box key={r.share + r.thickness} sx={{ flex: 1 }}>
            <Swatch colour={r} plain height={28} />
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", justifyContent: "space-between" }}>
        <Typography variant="caption">{water ? "full strength" : "mass"}</Typography>
        <Typography variant="caption">{water ? "thin wash" : "trace"}</Typography>
      </Box>
    </Box>
  );
}

function Neighbours({ wheel, slot, onChoose }: { wheel: Wheel; slot: Slot; onChoose: (slot: number) => void }) {
  const before = wheel.slots[(slot.index + 11) % 12]!;
  const after = wheel.slots[(slot.index + 1) % 12]!;
  const jumps = [before.jumps && before.name, slot.jumps && after.name].filter(Boolean);
  return (
    <Box sx={{ flex: 1.4 }}>
      <Typography variant="caption">{jumps.length > 0 ? `jumps to ${jumps.join(" and to ")}` : "to the neighbours: no jump"}</Typography>
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.5, mt: 0.5 }}>
        <Go to={before} onChoose={onChoose} />
        <Gap jump={before.jump} jumps={before.jumps} />
        <Swatch colour={slot.asPainted} plain width={40} height={40} />
        <Gap jump={slot.jump} jumps={slot.jumps} />
        <Go to={after} onChoose={onChoose} />
      </Box>
    </Box>
  );
}

function Gap({ jump, jumps }: { jump: number; jumps: boolean }) {
  return (
    <Box sx={{ flex: 1, textAlign: "center", fontFamily: figures, fontSize: 12, fontWeight: jumps ? 700 : 400, borderBottom: jumps ? `3px double ${grey.ink}` : `1px solid ${grey.mark}` }}>
      {jump.toFixed(2)}
    </Box>
  );
}

function Go({ to, onChoose, children }: { to: Slot; onChoose: (slot: number) => void; children?: ReactNode }) {
  return (
    <ButtonBase aria-label={`go to ${to.name}`} onClick={() => onChoose(to.index)} sx={{ gap: 1, flex: "none" }}>
      <Swatch colour={to.asPainted} plain width={32} height={40} />
      {children}
    </ButtonBase>
  );
}

function Across({ slot, onChoose }: { slot: Slot; onChoose: (slot: number) => void }) {
  return (
    <Box sx={{ flex: 1 }}>
      <Typography variant="caption">across: its complement</Typography>
      <Box sx={{ mt: 0.5 }}>
        <Go to={slot} onChoose={onChoose}>
          <Typography variant="subtitle2" component="span">
            {slot.name}
          </Typography>
        </Go>
      </Box>
    </Box>
  );
}
