import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import type { Wheel, WheelChoices } from "../api/client";
import { Choice, choicesOf, OneOf } from "../parts/Choice";
import { nameWords, orderWords, shadeWords, spacingWords, tintWords } from "../parts/choices";

/** How a wheel is made, in one line of which each word can be changed: slots, school, rings, how it is turned. */
export function ChoicesBar({
  wheel,
  choices,
  printed,
  halves,
  drawnOut,
  onSet,
  onHalves,
  onDraw,
}: {
  wheel: Wheel;
  printed: boolean;
  choices: WheelChoices;
  halves: boolean;
  drawnOut: boolean;
  onSet: (c: Partial<WheelChoices>) => void;
  onHalves: () => void;
  onDraw: (out: boolean) => void;
}) {
  const tops = [0, 4, 8].map((home) => wheel.slots.find((s) => s.home === home)!.role!);
  const rings = choices.rings;
  const on = [
    rings.tints > 0 && `${rings.tints} tint${rings.tints > 1 ? "s" : ""}`,
    rings.shades > 0 && `${rings.shades} shade${rings.shades > 1 ? "s" : ""}`,
    rings.wash && "wash",
    rings.triple && "highlight and shadow",
    rings.neutral && "neutrals",
  ].filter(Boolean);
  const setRings = (r: Partial<typeof rings>) => onSet({ rings: { ...rings, ...r } });
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        columnGap: 1.5,
        pt: { md: "6px" },
        "& button": { py: 0, fontSize: 14, lineHeight: "22px" },
      }}
    >
      <OneOf
        label={`slots: ${choices.six ? "six" : "twelve"}`}
        shown={choices.six ? "six slots" : "twelve slots"}
        of={[
          { value: "twelve", name: "twelve slots" },
          { value: "six", name: "six slots only, for beginners" },
        ]}
        value={choices.six ? "six" : "twelve"}
        onChoose={(n) => onSet({ six: n === "six" })}
      />
      <OneOf
        label={`steps: ${spacingWords[choices.spacing]}`}
        shown={
          { hue: "steps by hue", contrast: "by contrast", parts: "equal parts" }[choices.spacing]
        }
        of={choicesOf(spacingWords)}
        value={choices.spacing}
        onChoose={(spacing) => onSet({ spacing })}
      />
      <OneOf
        label={`mixed: ${orderWords[choices.order]}`}
        shown={choices.order === "run" ? "in a run" : "secondary first"}
        of={choicesOf(orderWords)}
        value={choices.order}
        onChoose={(order) => onSet({ order })}
      />
      <OneOf
        label={`laid: ${drawnOut ? "drawn out" : "flat"}`}
        shown={drawnOut ? "drawn out" : "laid flat"}
        of={[
          { value: "flat", name: "laid flat" },
          { value: "drawn", name: "drawn out, from full strength at the rim to thin at the tip" },
        ]}
        value={drawnOut ? "drawn" : "flat"}
        onChoose={(v) => onDraw(v === "drawn")}
      />
      <Choice
        label={`rings: ${on.join(", ") || "none"}`}
        bold={false}
        shown={
          <span>{on.length > 1 ? `${on.length} rings` : on.length === 1 ? on[0] : "no rings"}</span>
        }
      >
        {() => [
          ...[1, 2, 3].map((n) => (
            <MenuItem
              key={`t${n}`}
              selected={rings.tints === n}
              onClick={() => setRings({ tints: rings.tints === n ? 0 : n })}
            >
              {n} tint{n > 1 && "s"}
            </MenuItem>
          )),
          ...(Object.keys(tintWords) as (keyof typeof tintWords)[]).map((t) => (
            <MenuItem
              key={t}
              dense
              sx={{ pl: 4 }}
              selected={rings.tintBy === t}
              onClick={() => setRings({ tintBy: rings.tintBy === t ? undefined : t })}
            >
              tints by {tintWords[t]}
            </MenuItem>
          )),
          ...[1, 2, 3].map((n) => (
            <MenuItem
              key={`s${n}`}
              selected={rings.shades === n}
              onClick={() => setRings({ shades: rings.shades === n ? 0 : n })}
            >
              {n} shade{n > 1 && "s"}
            </MenuItem>
          )),
          ...(Object.keys(shadeWords) as (keyof typeof shadeWords)[]).map((t) => (
            <MenuItem
              key={t}
              dense
              sx={{ pl: 4 }}
              selected={rings.shadeBy === t}
              onClick={() => setRings({ shadeBy: rings.shadeBy === t ? undefined : t })}
            >
              shades by {shadeWords[t]}
            </MenuItem>
          )),
          <MenuItem
            key="wash"
            selected={rings.wash}
            onClick={() => setRings({ wash: !rings.wash })}
          >
            wash
          </MenuItem>,
          <MenuItem
            key="triple"
            selected={rings.triple}
            onClick={() => setRings({ triple: !rings.triple })}
          >
            highlight and shadow
          </MenuItem>,
          <MenuItem
            key="neutral"
            selected={rings.neutral}
            onClick={() => setRings({ neutral: !rings.neutral })}
          >
            neutral middles
          </MenuItem>,
        ]}
      </Choice>
      <Choice
        label="how the wheel is turned"
        bold={false}
        shown={<span>{`${choices.top || tops[0]} up`}</span>}
      >
        {() => [
          ...tops.map((t) => (
            <MenuItem
              key={t}
              selected={(choices.top || tops[0]) === t}
              onClick={() => onSet({ top: t })}
            >
              {t} up
            </MenuItem>
          )),
          <MenuItem key="ccw" selected={!!choices.ccw} onClick={() => onSet({ ccw: !choices.ccw })}>
            counter-clockwise
          </MenuItem>,
          <MenuItem key="halves" selected={halves} onClick={onHalves}>
            warm and cool halves
          </MenuItem>,
          <MenuItem
            key="raise"
            selected={!!choices.raise}
            onClick={() => onSet({ raise: !choices.raise })}
          >
            dark transparent paints raised with white
          </MenuItem>,
          ...(printed
            ? (Object.keys(nameWords) as WheelChoices["names"][]).map((n) => (
                <MenuItem
                  key={n}
                  selected={n === choices.names}
                  onClick={() => onSet({ names: n })}
                >
                  {nameWords[n]}
                </MenuItem>
              ))
            : []),
        ]}
      </Choice>
    </Box>
  );
}
