import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import TextField from "@mui/material/TextField";
import { useState, type ReactNode } from "react";
import { Link as To } from "react-router";
import {
  constants,
  type Predictions,
  type RingRung,
  type Settings,
  type Slot,
  type Wheel,
} from "../api/client";
import { figures, grey } from "../drawing/style";
import { WantIt } from "../parts/WantIt";
import { Drop, LeanMark } from "../drawing/Marks";
import { InMeasure } from "../parts/InMeasure";
import { CouldTurnOut, InTubes } from "../parts/InTubes";
import { Value } from "../parts/Value";
import { HowToMix, PartsBar } from "../parts/Recipe";
import { Ladder } from "../drawing/Ladder";
import { Swatch } from "../drawing/Swatch";
import { inParts } from "../parts/naming";
import { ratio, share } from "./words";
import { Word } from "../parts/Word";

/** What stands in one slot: how to mix it, what becomes of it, and why. */
export function StepCard({
  wheel,
  name,
  slot,
  settings,
  predictions,
  version,
  system,
  onChoose,
  onCall,
  onSwap,
}: {
  wheel: Wheel;
  name: string;
  slot: Slot;
  settings: Settings;
  predictions?: Predictions;
  version?: number;
  system: string;
  onChoose: (slot: number) => void;
  /** Gives it a name of the painter's own; none gives it back that of its set. */
  onCall: (name: string) => void;
  onSwap?: () => void;
}) {
  const primary = slot.kind === "primary";
  const predicted = predictions?.predictions.find(
    (p) => p.home === slot.home && p.version === version,
  );
  if (slot.empty) {
    return (
      <Box component="section" aria-label={`step: ${slot.name}`}>
        <Typography variant="h2">{slot.name}</Typography>
        <Typography sx={{ mt: 1 }}>{slot.because}</Typography>
      </Box>
    );
  }
  return (
    <Box
      component="section"
      aria-label={`step: ${slot.name}`}
      sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}
    >
      <Box>
        <Box
          sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 1 }}
        >
          <Typography variant="caption">
            slot {slot.index + 1}
            {slot.name !== slot.setName && ` · ${slot.setName}`} · {slot.kind} · as painted{" "}
            {slot.words} · <Value of={slot.asPainted} />
          </Typography>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 2, flex: "none" }}>
            <CallIt key={slot.name} slot={slot} onCall={onCall} />
            <WantIt
              key={slot.index}
              name={`${slot.name} of ${name}`}
              lab={slot.asPainted.lab}
              seen={settings}
            />
          </Box>
        </Box>
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            justifyContent: "space-between",
            columnGap: 1,
          }}
        >
          <Typography
            variant="h1"
            sx={{
              fontSize: slot.name.length > 11 ? 27 : slot.name.length > 9 ? 32 : 46,
              "&::first-letter": { textTransform: "uppercase" },
            }}
          >
            {slot.name}
          </Typography>
          <Box sx={{ display: "flex", alignItems: "center", gap: 1.25, flex: "none" }}>
            <Drop verdict={slot.verdict} sure={slot.sure} height={34} />
            <Box>
              <Typography
                data-verdict={slot.verdict}
                sx={{ fontSize: 20, lineHeight: "24px", fontWeight: 600 }}
              >
                {slot.verdictWords}
              </Typography>
              <Typography
                variant="caption"
                component="p"
                sx={{ fontFamily: figures, maxWidth: 124, lineHeight: "15px" }}
              >
                {slot.verdict === "neutral" ? (
                  "no brightness of its own"
                ) : (
                  <>
                    <Word of="undertone" />, {share(slot.retention)} <Word of="possible" />
                  </>
                )}
              </Typography>
              <CouldTurnOut of={slot} />
            </Box>
          </Box>
        </Box>
      </Box>
      <Because sentence={slot.because} />
      {predicted && (
        <Typography
          variant="body2"
          aria-label="prediction"
          sx={{ borderLeft: `3px solid ${grey.ink}`, pl: 1 }}
        >
          You said {predicted.hueWord}, {predicted.verdict}: {predicted.points} of{" "}
          {predictions?.each}.{" "}
          {predicted.hueRight ? "The hue was right" : `It came as ${predicted.computed}`},{" "}
          {predicted.verdictRight ? "and so was the brightness." : `and it is ${predicted.came}.`}
          {predicted.couldBe && ` In tubes as they differ ${predicted.couldBe.join(" or ")}.`}
        </Typography>
      )}
      <Looks slot={slot} settings={settings} />
      {primary ? (
        <PrimaryOnly slot={slot} system={system} onSwap={onSwap} />
      ) : (
        <InMeasure parts={slot.parts} view={settings}>
          <Box sx={{ display: "flex", flexDirection: "column", gap: 2 }}>
            <PartsBar parts={slot.parts} />
            <InTubes of={slot} />
            <HowToMix steps={slot.mixing} />
          </Box>
        </InMeasure>
      )}
      {slot.rings && <RingRows slot={slot} />}
      <Box>
        <Typography variant="caption">
          {settings.medium === "watercolour" ? (
            "thinned with water"
          ) : (
            <>
              <Word of="let down" /> with white, from mass to trace
            </>
          )}
        </Typography>
        <Ladder rungs={slot.ladder} height={28} />
      </Box>
      {!!slot.otherPairings?.length && <OtherPairings slot={slot} />}
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 1 }}>
        <Neighbours wheel={wheel} slot={slot} onChoose={onChoose} />
        <Across slot={wheel.slots[slot.complement]!} onChoose={onChoose} />
      </Box>
      <Schemes wheel={wheel} slot={slot} onChoose={onChoose} />
    </Box>
  );
}

/** A slot's name of the painter's own, typed in its place. */
function CallIt({ slot, onCall }: { slot: Slot; onCall: (name: string) => void }) {
  const own = slot.name === slot.setName ? "" : slot.name;
  const [typed, setTyped] = useState<string>();
  if (typed === undefined)
    return (
      <Button
        size="small"
        color="inherit"
        sx={{ px: 0, minWidth: 0 }}
        onClick={() => setTyped(own)}
      >
        call it
      </Button>
    );
  const keep = () => {
    if (typed.trim() !== own) onCall(typed.trim());
    setTyped(undefined);
  };
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <TextField
        label={`${slot.setName} is called`}
        variant="standard"
        size="small"
        autoFocus
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => {
          if (e.key === "Escape") setTyped(undefined);
        }}
        slotProps={{ htmlInput: { maxLength: constants.longestOwnName } }}
        sx={{ width: 170 }}
      />
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
    {
      key: "dry",
      colour: slot.dry,
      grow: 3,
      label: "dry, as painted",
      now: settings.judged === "dry",
    },
    { key: "wet", colour: slot.wet, grow: 2, label: "wet", now: settings.judged === "wet" },
    { key: "undertone", colour: slot.undertone, grow: 3, label: "undertone", now: false },
  ];
  return (
    <Box sx={{ display: "flex" }}>
      {looks.map((l) => (
        <Box key={l.key} sx={{ flex: l.grow }}>
          <Swatch colour={l.colour} height={64} />
          <Typography
            variant="caption"
            sx={{ color: l.now ? grey.ink : grey.third, fontWeight: l.now ? 600 : 400 }}
          >
            {l.label}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

function PrimaryOnly({
  slot,
  system,
  onSwap,
}: {
  slot: Slot;
  system: string;
  onSwap?: () => void;
}) {
  const paints = slot.halves?.length
    ? slot.halves.map((h) => ({
        paint: h.paint,
        code: h.parts[0]!.code,
        name: h.name,
        lean: h.lean,
        colour: h.asPainted,
      }))
    : [{ ...slot.parts[0]!, lean: slot.lean, colour: slot.asPainted }];
  return (
    <Box>
      {paints.map((p) => (
        <Box key={p.paint} sx={{ display: "flex", gap: 1.5, alignItems: "center", mb: 0.75 }}>
          {paints.length > 1 && <Swatch colour={p.colour} plain width={36} height={40} />}
          <Box>
            <Typography variant="subtitle2">
              {p.code === p.name ? p.name : `${p.code} ${p.name}`}
            </Typography>
            {p.lean && (
              <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
                <LeanMark lean={p.lean} />
                <Typography>
                  {p.lean.toward === "centred" ? "centred" : `leans to ${p.lean.toward}`}{" "}
                  <Box component="span" sx={{ fontFamily: figures, fontSize: 13 }}>
                    {Math.abs(p.lean.degrees).toFixed(0)}°
                  </Box>
                  {p.lean.inMass && `; straight from the tube to ${p.lean.inMass}`}
                  {p.lean.inWash && `; in a wash to ${p.lean.inWash}`}
                </Typography>
              </Box>
            )}
          </Box>
        </Box>
      ))}
      {onSwap ? (
        <Button variant="outlined" size="large" onClick={onSwap} sx={{ mt: 0.5 }}>
          swap this paint
        </Button>
      ) : (
        <Button variant="outlined" size="large" component={To} to={system} sx={{ mt: 0.5 }}>
          change the system
        </Button>
      )}
    </Box>
  );
}

/** The slot's places on the rings that are on, with their parts. */
function RingRows({ slot }: { slot: Slot }) {
  const r = slot.rings!;
  const rows = [
    { what: "shades", list: [...(r.shades ?? [])].reverse() },
    { what: "tints", list: r.tints ?? [] },
    {
      what: "highlight, base, shadow",
      list: [r.highlight, r.shadow].filter((x): x is RingRung => !!x),
    },
  ].filter((row) => row.list.length > 0);
  return (
    <Box aria-label="rings">
      {rows.map((row) => (
        <Box key={row.what} sx={{ mb: 0.5 }}>
          <Typography variant="caption">
            {row.what} with{" "}
            {row.list
              .map((x) => x.with)
              .filter((w, i, all) => all.indexOf(w) === i)
              .join(" and ")}
          </Typography>
          <Box sx={{ display: "flex", gap: "2px" }}>
            {row.list.map((x, i) => (
              <Box key={i} sx={{ flex: 1 }}>
                <Swatch colour={x} plain height={26} />
                <Typography variant="caption" component="p" sx={{ fontFamily: figures }}>
                  {x.parts.length > 1 ? ratio(x.parts) : "thinned"}
                  {!x.reached && ", as far as it goes"}
                </Typography>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** What the other pairs of these roles would make here. */
function OtherPairings({ slot }: { slot: Slot }) {
  return (
    <Box aria-label="other pairings">
      <Typography variant="caption">other pairings, bright to dull</Typography>
      {slot.otherPairings!.map((p) => (
        <Box
          key={`${p.a} ${p.b}`}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            borderTop: `1px solid ${grey.hairline}`,
            py: 0.5,
          }}
        >
          <Swatch colour={p.asPainted} plain width={30} height={24} />
          <Swatch colour={p.undertone} plain width={30} height={24} />
          <Drop verdict={p.verdict} height={14} />
          <Typography variant="body2" sx={{ flex: 1 }}>
            {inParts(p.parts)}
          </Typography>
          <Typography variant="caption" sx={{ fontFamily: figures }}>
            {share(p.retention)}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** Sets read off the wheel from this slot; hover or focus one to see its paints. */
function Schemes({
  wheel,
  slot,
  onChoose,
}: {
  wheel: Wheel;
  slot: Slot;
  onChoose: (slot: number) => void;
}) {
  return (
    <Box aria-label="schemes">
      <Typography variant="caption">read off from here</Typography>
      {slot.schemes.map((s) => (
        <Box
          key={s.scheme}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            borderTop: `1px solid ${grey.hairline}`,
            minHeight: 34,
          }}
        >
          <Typography variant="body2" sx={{ width: 112 }}>
            {s.scheme}
          </Typography>
          {s.slots.map((i) => {
            const to = wheel.slots[i]!;
            return (
              <ButtonBase
                key={i}
                aria-label={`${s.scheme}: ${to.name}`}
                title={`${to.name}: ${inParts(to.parts)}`}
                onClick={() => onChoose(i)}
              >
                <Swatch colour={to.asPainted} plain width={26} height={24} />
              </ButtonBase>
            );
          })}
          <Typography variant="caption" sx={{ flex: 1, minWidth: 0 }}>
            {s.slots
              .filter((i) => i !== slot.index)
              .map((i) => wheel.slots[i]!.name)
              .join(", ")}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

function Neighbours({
  wheel,
  slot,
  onChoose,
}: {
  wheel: Wheel;
  slot: Slot;
  onChoose: (slot: number) => void;
}) {
  const before = wheel.slots[(slot.index + 11) % 12]!;
  const after = wheel.slots[(slot.index + 1) % 12]!;
  const jumps = [before.jumps && before.name, slot.jumps && after.name].filter(Boolean);
  return (
    <Box sx={{ flex: 1.4 }}>
      <Typography variant="caption">
        {jumps.length > 0 ? `jumps to ${jumps.join(" and to ")}` : "to the neighbours: no jump"}
      </Typography>
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
    <Box
      sx={{
        flex: 1,
        textAlign: "center",
        fontFamily: figures,
        fontSize: 12,
        fontWeight: jumps ? 700 : 400,
        borderBottom: jumps ? `3px double ${grey.ink}` : `1px solid ${grey.mark}`,
      }}
    >
      {jump.toFixed(2)}
    </Box>
  );
}

function Go({
  to,
  onChoose,
  children,
}: {
  to: Slot;
  onChoose: (slot: number) => void;
  children?: ReactNode;
}) {
  return (
    <ButtonBase
      aria-label={`go to ${to.name}`}
      onClick={() => onChoose(to.index)}
      sx={{ gap: 1, flex: "none" }}
    >
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
