import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState, type ReactNode } from "react";
import type { Counted } from "../api/client";
import { grey } from "../drawing/style";
import type { Done } from "./useSitting";

/** What a wet finger meets: 56 px high at the least. */
const wetHand = { minHeight: 56 } as const;

/** The one thing to tap. */
export function Large({
  onClick,
  keys,
  children,
}: {
  onClick: () => void;
  keys?: string;
  children: ReactNode;
}) {
  return (
    <Button
      variant="contained"
      disableElevation
      onClick={onClick}
      aria-keyshortcuts={keys}
      sx={{ flex: 2, minHeight: 76, fontSize: 22, fontWeight: 600 }}
    >
      {children}
    </Button>
  );
}

export function Second({
  onClick,
  keys,
  pressed,
  children,
}: {
  onClick: () => void;
  keys?: string;
  pressed?: boolean;
  children: ReactNode;
}) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      onClick={onClick}
      aria-keyshortcuts={keys}
      aria-pressed={pressed}
      sx={{ flex: 1, minHeight: 76, fontSize: 17 }}
    >
      {children}
    </Button>
  );
}

/** A word to tap. */
export function Tap({
  onClick,
  keys,
  pressed,
  disabled,
  children,
}: {
  onClick: () => void;
  keys?: string;
  pressed?: boolean;
  disabled?: boolean;
  children: ReactNode;
}) {
  return (
    <Button
      color="inherit"
      onClick={onClick}
      disabled={disabled}
      aria-keyshortcuts={keys}
      aria-pressed={pressed}
      sx={{
        ...wetHand,
        px: 1,
        fontSize: 15,
        textDecoration: pressed ? "underline" : undefined,
        textUnderlineOffset: "5px",
      }}
    >
      {children}
    </Button>
  );
}

/** How much was really taken, by tapping. */
export function TookMore({
  id,
  counted,
  onTell,
}: {
  /** Of the place. */
  id: string;
  counted: Counted;
  onTell: (done: Done) => void;
}) {
  const { measure } = counted;
  const [took, setTook] = useState(counted.taken);
  const step = measure === "grams" ? 0.1 : 1;
  const by = (i: number, way: number) =>
    setTook(
      took.map((t, k) =>
        k === i ? { ...t, amount: Math.max(0, Math.round((t.amount + way * step) * 10) / 10) } : t,
      ),
    );
  return (
    <Box
      component="section"
      aria-label="what it took"
      sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}
    >
      {took.map((t, i) => (
        <Box key={t.name} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Box sx={{ flex: 1 }}>{t.name}</Box>
          <Button
            color="inherit"
            variant="outlined"
            aria-label={`less ${t.name}`}
            sx={{ ...wetHand, minWidth: 56 }}
            onClick={() => by(i, -1)}
          >
            −
          </Button>
          <Box sx={{ minWidth: 72, textAlign: "center" }} role="status">
            {t.amount} {measure === "dabs" ? "mm" : measure}
          </Box>
          <Button
            color="inherit"
            variant="outlined"
            aria-label={`more ${t.name}`}
            sx={{ ...wetHand, minWidth: 56 }}
            onClick={() => by(i, 1)}
          >
            +
          </Button>
        </Box>
      ))}
      <Tap
        onClick={() =>
          onTell({
            kind: "measured",
            region: id,
            took: took.map(({ paint, amount, in: weak, thin }) => ({
              paint,
              amount,
              in: weak,
              thin,
            })),
          })
        }
      >
        keep this
      </Tap>
    </Box>
  );
}

/** A note to the sitting, or to one place of it. */
export function Note({ onKeep }: { onKeep: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <Box
      component="form"
      sx={{ display: "flex", gap: 1, alignItems: "flex-start", pt: 1 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) onKeep(text.trim());
      }}
    >
      <TextField
        label="a note"
        value={text}
        autoFocus
        multiline
        fullWidth
        onChange={(e) => setText(e.target.value)}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <Button type="submit" variant="outlined" color="inherit" sx={wetHand}>
        keep the note
      </Button>
    </Box>
  );
}
