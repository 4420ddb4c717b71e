import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useAddress } from "../parts/useAddress";
import { inParts } from "../parts/naming";
import { WantIt } from "../parts/WantIt";
import { Setting } from "../parts/Choice";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { Swatch } from "../drawing/Swatch";
import { value } from "../drawing/value";
import { LineMark } from "./Marks";
import { StepWheel } from "./StepWheel";
import { usePhone } from "../parts/usePhone";
import { Value } from "../parts/Value";
import Button from "@mui/material/Button";
import type { Comparison } from "./shapes";

const alignments = { name: "by their names", hue: "by wheel hue" } as const;
const layouts = { wheels: "as wheels", rows: "in rows" } as const;

/** Whose row it is. */
function RowHead({ index, name }: { index: number; name: string }) {
  return (
    <Box sx={{ pr: 1, minWidth: 0 }}>
      <LineMark index={index} />
      <Typography
        variant="subtitle2"
        title={name}
        sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
      >
        {name}
      </Typography>
    </Box>
  );
}

/** Every step where its undertone stands on the painter's circle, laid straight: yellow first, clockwise. */
function HueRows({
  got,
  stepOf,
  onStep,
}: {
  got: Comparison;
  stepOf: (i: number) => number;
  onStep: (system: number, n: number) => void;
}) {
  const { fill } = useColours();
  const left = (hue: number) => `${((120 - hue + 15 + 720) % 360) / 3.6}%`;
  return (
    <Box sx={{ mt: 1 }}>
      {got.systems.map((s, i) => (
        <Box
          key={i}
          sx={{
            display: "grid",
            gridTemplateColumns: { xs: "96px minmax(0, 1fr)", md: "180px minmax(0, 1fr)" },
            alignItems: "center",
            mb: 1,
          }}
        >
          <RowHead index={i} name={s.name} />
          <Box sx={{ position: "relative", height: 60, bgcolor: grey.track, mr: "34px" }}>
            {s.slots.map(
              (slot, n) =>
                !slot.empty && (
                  <Box
                    key={n}
                    component="button"
                    aria-label={`${s.name}: ${slot.name}, ${slot.hueWord}`}
                    aria-pressed={n === stepOf(i)}
                    onClick={() => onStep(i, n)}
                    sx={{
                      position: "absolute",
                      top: 4,
                      left: left(slot.wheelHue),
                      width: 34,
                      height: 52,
                      p: 0,
                      border: `2px solid ${n === stepOf(i) ? grey.ink : grey.track}`,
                      bgcolor: "transparent",
                      cursor: "pointer",
                      zIndex: n === stepOf(i) ? 1 : 0,
                    }}
                  >
                    <svg width="100%" height={48} aria-hidden style={{ display: "block" }}>
                      <rect width="100%" height={48} fill={fill(slot.asPainted)} />
                    </svg>
                  </Box>
                ),
            )}
          </Box>
        </Box>
      ))}
      <Typography variant="caption">
        from yellow over orange, red, violet, blue and green back to yellow, each where its
        undertone stands
      </Typography>
    </Box>
  );
}

/** Every step below the step of the same name. */
function NameRows({
  got,
  at,
  onStep,
}: {
  got: Comparison;
  at: number;
  onStep: (system: number, n: number) => void;
}) {
  const { fill } = useColours();
  return (
    <Box sx={{ overflowX: "auto", mt: 1 }}>
      {got.systems.map((s, i) => (
        <Box
          key={i}
          sx={{
            display: "grid",
            gridTemplateColumns: {
              xs: "96px repeat(12, minmax(48px, 1fr))",
              md: "180px repeat(12, minmax(44px, 1fr))",
            },
            gap: "2px",
            alignItems: "end",
            mb: 1,
          }}
        >
          <RowHead index={i} name={s.name} />
          {s.slots.map((slot, n) => (
            <Box
              key={n}
              component="button"
              aria-label={`${s.name}: ${slot.name}, ${slot.empty ? "empty" : `${slot.verdict}, ${slot.words}, value ${value(slot.asPainted)}`}`}
              aria-pressed={n === at}
              onClick={() => onStep(i, n)}
              sx={{
                p: 0,
                border: 0,
                borderBottom: `3px solid ${n === at ? grey.ink : "transparent"}`,
                bgcolor: "transparent",
                cursor: "pointer",
                minWidth: 0,
              }}
            >
              <svg width="100%" height={52} aria-hidden style={{ display: "block" }}>
                <rect
                  width="100%"
                  height={52}
                  fill={slot.empty ? grey.track : fill(slot.asPainted)}
                />
              </svg>
              <Box
                component="span"
                sx={{ display: "flex", justifyContent: "center", height: 18, pt: "2px" }}
              >
                {!slot.empty && <Drop verdict={slot.verdict} height={14} />}
              </Box>
            </Box>
          ))}
        </Box>
      ))}
    </Box>
  );
}

/** The twelve steps of every system beside those of the others; one of them large. */
export function StepsView({ got }: { got: Comparison }) {
  const { phone } = usePhone();
  const { search, show, one } = useAddress();
  const at = Math.max(0, Math.min(11, Number(search.get("step") ?? 2) || 0));
  const by = one<keyof typeof alignments>("by", alignments, "name");
  const layout = one<keyof typeof layouts>("layout", layouts, "wheels");
  // Aligned by hue, the step of another system is the one nearest in hue to the chosen one's.
  const of =
    by === "hue" ? Math.max(0, Math.min(got.systems.length - 1, Number(search.get("of")) || 0)) : 0;
  const alike = got.systems[of]!.slots[at]!.alike;
  const stepOf = (i: number) =>
    by === "hue" && i !== of && (alike[i] ?? -1) >= 0 ? alike[i]! : at;
  const go = (i: number, n: number) =>
    show({ step: String(n), of: by === "hue" && i > 0 ? String(i) : undefined });
  return (
    <Box component="section" aria-label="step beside step" sx={{ mt: 1 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 4 }}>
        <Setting
          label="steps laid out"
          words={layouts}
          value={layout}
          onChoose={(v) => show({ layout: v === "wheels" ? undefined : v })}
        />
        <Setting
          label="steps aligned"
          words={alignments}
          value={by}
          onChoose={(v) => show({ by: v === "name" ? undefined : v })}
        />
      </Box>
      {phone && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Button color="inherit" variant="outlined" onClick={() => go(of, (at + 11) % 12)}>
            ‹ step
          </Button>
          <Typography sx={{ flex: 1, textAlign: "center" }}>
            {got.systems[of]!.slots[at]!.name}
          </Typography>
          <Button color="inherit" variant="outlined" onClick={() => go(of, (at + 1) % 12)}>
            step ›
          </Button>
        </Box>
      )}
      {layout === "wheels" && (
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: {
              xs: "repeat(2, minmax(0, 1fr))",
              md: `repeat(${got.systems.length}, minmax(0, 1fr))`,
            },
            gap: 1,
            mt: 1,
          }}
        >
          {got.systems.map((s, i) => (
            <Box key={i} sx={{ minWidth: 0 }}>
              <Typography
                variant="subtitle2"
                title={s.name}
                sx={{
                  textAlign: "center",
                  overflow: "hidden",
                  textOverflow: "ellipsis",
                  whiteSpace: "nowrap",
                }}
              >
                {s.name}
              </Typography>
              <StepWheel
                system={s}
                index={i}
                byHue={by === "hue"}
                at={stepOf(i)}
                onStep={(n) => go(i, n)}
              />
            </Box>
          ))}
        </Box>
      )}
      {layout === "rows" &&
        (by === "hue" ? (
          <HueRows got={got} stepOf={stepOf} onStep={go} />
        ) : (
          <NameRows got={got} at={at} onStep={go} />
        ))}
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: `repeat(${got.systems.length}, minmax(0, 1fr))`,
          gap: "3px",
          mt: 2,
          borderTop: `2px solid ${grey.ink}`,
          pt: 1,
        }}
      >
        {got.systems.map((s, i) => {
          const slot = s.slots[stepOf(i)]!;
          return (
            <Box
              key={i}
              aria-label={`${slot.name} of ${s.name}`}
              sx={{ minWidth: 0, overflowWrap: "anywhere" }}
            >
              {!slot.empty && (
                <>
                  <Swatch colour={slot.asPainted} height={128} />
                  <Swatch colour={slot.undertone} height={44} />
                </>
              )}
              <Typography variant="h3" sx={{ mt: 1 }}>
                {slot.name}
              </Typography>
              <Typography variant="caption" component="p">
                {s.name}
              </Typography>
              {slot.empty ? (
                <Typography>Nothing fills it.</Typography>
              ) : (
                <>
                  <Typography
                    sx={{
                      display: "flex",
                      flexWrap: "wrap",
                      alignItems: "center",
                      columnGap: 0.75,
                    }}
                  >
                    <Drop verdict={slot.verdict} height={17} /> {slot.verdict}{" "}
                    <span style={{ fontFamily: figures }}>{slot.retention.toFixed(2)}</span>
                  </Typography>
                  <Typography sx={{ fontFamily: figures, fontSize: 13 }}>
                    {inParts(slot.parts)}
                  </Typography>
                  <Typography variant="body2">
                    {slot.words} · <Value of={slot.asPainted} />
                  </Typography>
                  <WantIt
                    key={`${i} ${slot.name}`}
                    name={`${slot.name} of ${s.name}`}
                    lab={slot.asPainted.lab}
                    seen={got}
                  />
                </>
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
