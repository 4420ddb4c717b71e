import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Slider from "@mui/material/Slider";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { useParams } from "react-router";
import type { Conditions, Ingredient } from "../api/client";
import { countedQuery } from "../api/queries";
import { figures, grey } from "../drawing/style";
import { choicesOf, OneOf } from "./Choice";
import { measureWords } from "./choices";
import { CountedOut } from "./CountedOut";
import { TubesOrPans } from "./TubesOrPans";
import { canBe, useMeasure } from "./useMeasure";
import { Tabs } from "./Tabs";

/** A recipe in parts, which is what stands inside, or counted out in the painter's measure. */
export function InMeasure({
  parts,
  view,
  times,
  children,
}: {
  parts: Ingredient[];
  view: Conditions;
  /** How many times as much as a slot takes. */
  times?: number;
  children: ReactNode;
}) {
  const wheel = Number(useParams().id ?? 0);
  const { counted, measure, size, mm, set } = useMeasure(view.medium);
  const answer = useQuery({
    ...countedQuery(wheel, parts, view, measure, size, times),
    enabled: counted && parts.length > 0,
  });
  return (
    <Box>
      <Tabs
        label="counted"
        words={{ parts: "in parts", measure: `in ${measureWords[measure]}` }}
        value={counted ? "measure" : "parts"}
        onChoose={(v) => set({ counted: v === "measure" })}
      />
      <Box sx={{ mt: 1 }}>
        {!counted ? (
          children
        ) : answer.error ? (
          <Typography role="alert">{answer.error.message}</Typography>
        ) : (
          answer.data && <CountedOut counted={answer.data} mm={mm} />
        )}
      </Box>
      {counted && <TubesOrPans medium={view.medium} />}
      {counted && <Measures medium={view.medium} />}
    </Box>
  );
}

/** Which measure a medium is counted out in, and how large one is at this table. */
export function Measures({ medium }: { medium: Conditions["medium"] }) {
  const { measure, of, one, mm, set } = useMeasure(medium);
  const [open, setOpen] = useState(false);
  const sized = measure === "drops" || measure === "loads" || measure === "tips";
  return (
    <Box>
      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
        <OneOf
          label={`measure: ${measure}`}
          shown={`${medium} in ${measureWords[measure]}`}
          of={choicesOf(measureWords)}
          value={measure}
          onChoose={(m) => set({ of: { ...of, [medium]: m } })}
        />
        {(measure === "dabs" || sized) && (
          <Button size="small" color="inherit" sx={{ px: 0 }} onClick={() => setOpen(!open)}>
            {open ? "that is done" : measure === "dabs" ? "true size" : `how large one is`}
          </Button>
        )}
      </Box>
      {open && measure === "dabs" && (
        <Box sx={{ pb: 1 }}>
          <Typography variant="body2">Hold a ruler to the bar and draw it to 50 mm.</Typography>
          <svg width={50 * mm} height={14} aria-hidden style={{ display: "block" }}>
            <path d={`M0.5 0 V14 M0 7 H${50 * mm} M${50 * mm - 0.5} 0 V14`} stroke={grey.ink} />
          </svg>
          <Slider
            aria-label="pixels to a mm"
            value={mm}
            min={2}
            max={8}
            step={0.02}
            size="small"
            onChange={(_, v) => set({ mm: v })}
            sx={{ maxWidth: 280, color: grey.ink }}
          />
        </Box>
      )}
      {open && sized && (
        <Sized
          key={measure}
          what={measureWords[measure]}
          ml={one[measure]}
          onSet={(ml) => set({ one: { ...one, [measure]: ml } })}
        />
      )}
    </Box>
  );
}

/** Ten of them weighed, or a spoon filled, tell how large one is. */
function Sized({
  what,
  ml,
  onSet,
}: {
  what: string;
  ml?: number;
  onSet: (ml: number | undefined) => void;
}) {
  const [grams, setGrams] = useState("");
  const [filled, setFilled] = useState("");
  const from = Number(grams) > 0 ? Number(grams) / 10 : Number(filled) > 0 ? 5 / Number(filled) : 0;
  const field = (label: string, value: string, set: (v: string) => void) => (
    <TextField
      id={`${what}-${label}`}
      label={label}
      variant="standard"
      size="small"
      value={value}
      onChange={(e) => set(e.target.value)}
      slotProps={{ htmlInput: { inputMode: "decimal", maxLength: 8 } }}
      sx={{ maxWidth: 240 }}
    />
  );
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1, pb: 1 }}>
      {field(`ten ${what} of water weigh, g`, grams, setGrams)}
      {field(`or a spoon of 5 ml takes so many`, filled, setFilled)}
      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
        <Button
          size="small"
          variant="outlined"
          color="inherit"
          disabled={!canBe(from)}
          onClick={() => onSet(from)}
        >
          take {from ? `${from.toFixed(3)} ml` : "that"}
        </Button>
        {ml !== undefined && (
          <Button size="small" color="inherit" onClick={() => onSet(undefined)}>
            the usual size
          </Button>
        )}
        <span style={{ fontFamily: figures }}>
          {ml ? `now ${ml.toFixed(3)} ml` : "now the usual"}
        </span>
      </Box>
    </Box>
  );
}
