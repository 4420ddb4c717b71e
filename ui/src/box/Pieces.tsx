import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState, type ReactNode } from "react";
import type { Conditions } from "../api/client";
import { labelQuery } from "../api/queries";
import { judgedWords } from "../parts/choices";
import { MediumChoice } from "../parts/Conditions";
import { grey } from "../drawing/style";
import { Setting } from "../parts/Choice";

/** The name of a panel, and the way out of it. */
export function PanelHead({
  title,
  leave = "leave it",
  onClose,
}: {
  title: string;
  leave?: string;
  onClose: () => void;
}) {
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline" }}>
      <Typography variant="h2">{title}</Typography>
      <Button color="inherit" onClick={onClose}>
        {leave}
      </Button>
    </Box>
  );
}

/** One step of a form. */
export function Step({ n, title, children }: { n: number; title: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "24px minmax(0, 1fr)",
        columnGap: 1,
        borderTop: `1px solid ${grey.hairline}`,
        py: 1.25,
      }}
    >
      <Typography sx={{ color: grey.third, fontSize: 15 }}>{n}</Typography>
      <Box>
        <Typography variant="subtitle2">{title}</Typography>
        {children}
      </Box>
    </Box>
  );
}

/** In what and how dry swatches were painted: their surface is taken off with it. */
export function SwatchSurface({
  value,
  onChange,
}: {
  value: Pick<Conditions, "medium" | "judged">;
  onChange: (v: Pick<Conditions, "medium" | "judged">) => void;
}) {
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
      <Typography component="span">The swatches are of</Typography>
      <MediumChoice
        label="swatches painted in"
        value={value.medium}
        onChoose={(medium) => onChange({ ...value, medium })}
      />
      <Typography component="span">and</Typography>
      <Setting
        label="swatches are"
        words={judgedWords}
        value={value.judged}
        onChoose={(judged) => onChange({ ...value, judged })}
      />
    </Box>
  );
}

/** How many parts of white stand beside one of paint; null while that is no number above 0. */
export const whiteParts = (text: string): number | null => {
  const v = Number(text.replace(",", "."));
  return text.trim() !== "" && Number.isFinite(v) ? v : null;
};

/** The share of white in a tint of so many parts; the server refuses what is below 0. */
export const whiteShare = (parts: number) => (parts < 0 ? -1 : parts / (1 + parts));

export function WhiteParts({ text, onText }: { text: string; onText: (t: string) => void }) {
  const v = whiteParts(text);
  return (
    <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
      <Typography component="span">The tint is 1 part of paint in</Typography>
      <TextField
        variant="standard"
        value={text}
        onChange={(e) => onText(e.target.value)}
        error={v === null}
        sx={{ width: 64 }}
        slotProps={{
          htmlInput: {
            "aria-label": "parts of white",
            inputMode: "decimal",
            maxLength: 8,
            style: { textAlign: "center" },
          },
        }}
      />
      <Typography component="span">
        parts of titanium white{v === null && ": write a number"}
      </Typography>
    </Box>
  );
}

/** What a label says, read for its pigment codes; where a code is several paints, one is chosen. */
export function LabelField({
  view,
  label,
  onPigments,
  helper,
}: {
  view: Conditions;
  label: string;
  onPigments: (ids: string[]) => void;
  helper: string;
}) {
  const [text, setText] = useState("");
  const [picked, setPicked] = useState<Record<string, string>>({});
  const asked = useDeferredValue(text);
  const codes = useQuery(labelQuery(view, asked));
  const found = text.trim() === "" ? [] : (codes.data ?? []);
  const ids = found.flatMap((c) => (c.choices?.length ? [picked[c.code] ?? c.choices[0]!.id] : []));
  const said = ids.join();
  useEffect(() => onPigments(said === "" ? [] : said.split(",")), [said, onPigments]);
  const unknown = found.filter((c) => !c.choices?.length);
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 1 }}>
      <TextField
        size="small"
        fullWidth
        label={label}
        value={text}
        onChange={(e) => setText(e.target.value)}
        helperText={text.trim() !== "" && codes.error ? codes.error.message : helper}
        slotProps={{ htmlInput: { maxLength: 300, autoComplete: "off" } }}
      />
      {unknown.length > 0 && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          The library has no {unknown.map((c) => c.code).join(", ")}: it is left out. A paint of it
          can come from two swatches instead.
        </Typography>
      )}
      {found
        .filter((c) => (c.choices?.length ?? 0) > 1)
        .map((c) => (
          <Box
            key={c.code}
            sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap" }}
          >
            <Typography component="span">{c.code} is several paints:</Typography>
            <Setting
              label={`which ${c.code}`}
              words={Object.fromEntries(c.choices.map((p) => [p.id, p.name]))}
              value={picked[c.code] ?? c.choices[0]!.id}
              onChoose={(id) => setPicked({ ...picked, [c.code]: id })}
            />
          </Box>
        ))}
    </Box>
  );
}
