import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { answer, client, type Schemas } from "../api/client";
import { useAddress } from "../app/useAddress";
import { Words } from "../app/Words";
import { figures, grey } from "../app/theme";
import { Drop } from "../drawing/Marks";
import { fill } from "../drawing/screen";
import { Swatch } from "../drawing/Swatch";
import { LineMark } from "./Marks";
import type { Comparison } from "./shapes";

const alignments = { name: "by their names", hue: "by wheel hue" } as const;

/** Every step where its undertone stands on the painter's circle, laid straight: yellow first, clockwise. */
function HueRows({ got, stepOf, onStep }: { got: Comparison; stepOf: (i: number) => number; onStep: (n: number) => void }) {
  const left = (hue: number) => `${((120 - hue + 15 + 720) % 360) / 3.6}%`;
  return (
    <Box>
      {got.systems.map((s, i) => (
        <Box key={i} sx={{ display: "grid", gridTemplateColumns: "180px minmax(0, 1fr)", alignItems: "center", mb: 1 }}>
          <Box sx={{ pr: 1, minWidth: 0 }}>
            <LineMark index={i} />
            <Typography variant="subtitle2" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
              {s.name}
            </Typography>
          </Box>
          <Box sx={{ position: "relative", height: 60, bgcolor: grey.track, mr: "34px" }}>
            {s.slots.map(
              (slot, n) =>
                !slot.empty && (
                  <Box key={n} component="button" aria-label={`${s.name}: ${slot.name}, ${slot.hueWord}`} aria-pressed={n === stepOf(i)} onClick={() => onStep(n)} sx={{ position: "absolute", top: 4, left: left(slot.wheelHue), width: 34, height: 52, p: 0, border: `2px solid ${n === stepOf(i) ? grey.ink : grey.track}`, bgcolor: "transparent", cursor: "pointer", zIndex: n === stepOf(i) ? 1 : 0 }}>
                    <svg width="100%" height={48} aria-hidden style={{ display: "block" }}>
                      <rect width="100%" height={48} fill={fill(slot.asPainted)} />
                    </svg>
                  </Box>
                ),
            )}
          </Box>
        </Box>
      ))}
      <Typography variant="caption">from yellow over orange, red, violet, blue and green back to yellow, each where its undertone stands</Typography>
    </Box>
  );
}

/** The twelve steps of every system in rows, the same step one below the other; one of them large. */
export function StepsView({ got }: { got: Comparison }) {
  const { search, show, one } = useAddress();
  const queries = useQueryClient();
  const want = useMutation({
    mutationFn: (w: Schemas["Wanted"]) => answer(client.POST("/api/wanted", { body: [w] })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["wanted"] }),
  });
  const at = Math.max(0, Math.min(11, Number(search.get("step") ?? 2) || 0));
  const by = one<keyof typeof alignments>("by", alignments, "name");
  const first = got.systems[0]!.slots[at]!;
  // Aligned by hue the step of another system is the one nearest in hue to the first one's.
  const stepOf = (i: number) => {
    const alike = by === "hue" ? first.alike[i] : undefined;
    return alike === undefined || alike < 0 ? at : alike;
  };
  return (
    <Box component="section" aria-label="step beside step" sx={{ mt: 1 }}>
      <Words label="steps aligned" words={alignments} value={by} onChoose={(v) => show({ by: v === "name" ? undefined : v })} />
      {by === "hue" && <HueRows got={got} stepOf={stepOf} onStep={(n) => show({ step: String(n) })} />}
      <Box sx={{ overflowX: "auto", display: by === "name" ? "block" : "none" }}>
        {got.systems.map((s, i) => (
          <Box key={i} sx={{ display: "grid", gridTemplateColumns: "180px repeat(12, minmax(44px, 1fr))", gap: "2px", alignItems: "end", mb: 1 }}>
            <Box sx={{ pr: 1, minWidth: 0 }}>
              <LineMark index={i} />
              <Typography variant="subtitle2" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
                {s.name}
              </Typography>
            </Box>
            {s.slots.map((slot, n) => (
              <Box key={n} component="button" aria-label={`${s.name}: ${slot.name}, ${slot.empty ? "empty" : `${slot.verdict}, ${slot.words}`}`} aria-pressed={n === at} onClick={() => show({ step: String(n) })} sx={{ p: 0, border: 0, borderBottom: `3px solid ${n === at ? grey.ink : "transparent"}`, bgcolor: "transparent", cursor: "pointer", minWidth: 0 }}>
                <svg width="100%" height={52} aria-hidden style={{ display: "block" }}>
                  <rect width="100%" height={52} fill={slot.empty ? grey.track : fill(slot.asPainted)} />
                </svg>
                <Box component="span" sx={{ display: "flex", justifyContent: "center", height: 18, pt: "2px" }}>
                  {!slot.empty && <Drop verdict={slot.verdict} height={14} />}
                </Box>
              </Box>
            ))}
          </Box>
        ))}
      </Box>
      {want.error && <Typography role="alert">{want.error.message}</Typography>}
      {want.isSuccess && <Typography role="status">It is among the wanted colours now.</Typography>}
      <Box sx={{ display: "grid", gridTemplateColumns: `repeat(${got.systems.length}, minmax(0, 1fr))`, gap: "3px", mt: 2, borderTop: `2px solid ${grey.ink}`, pt: 1 }}>
        {got.systems.map((s, i) => {
          const slot = s.slots[stepOf(i)]!;
          return (
            <Box key={i} aria-label={`${slot.name} of ${s.name}`}>
              {!slot.empty && (
                <>
                  <Swatch colour={slot.asPainted} height={150} />
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
                  <Typography sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
                    <Drop verdict={slot.verdict} height={17} /> {slot.verdict} <span style={{ fontFamily: figures }}>{slot.retention.toFixed(2)}</span>
                  </Typography>
                  <Typography sx={{ fontFamily: figures, fontSize: 13 }}>{slot.parts.map((p) => `${p.parts} ${p.code}`).join(" : ")}</Typography>
                  <Typography variant="body2">{slot.words}</Typography>
                  {got.light === "D65" && got.judged === "dry" && (
                    <Button size="small" color="inherit" disabled={want.isPending} onClick={() => want.mutate({ name: `${slot.name} of ${s.name}`.slice(0, 80), colour: slot.asPainted.lab.join(",") })} sx={{ px: 0 }}>
                      want this colour
                    </Button>
                  )}
                </>
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
