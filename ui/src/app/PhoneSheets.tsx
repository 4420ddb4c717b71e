import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { Profile } from "../api/client";
import { grey } from "../drawing/style";
import type { Viewed } from "../parts/Conditions";
import { FromBelow } from "../parts/FromBelow";
import { judgedWords, lightWords, mediumWords } from "../parts/choices";
import { hold, useHolding } from "../parts/holding";
import { behind, places, usePlaces } from "./Rail";
import { Squint } from "./Squint";
import { SurroundChoice } from "./surround";
import { usePainterDeeds } from "./usePainterDeeds";

/** One row of words, of which one holds. */
function Row<T extends string>({
  label,
  words,
  value,
  onChoose,
}: {
  label: string;
  words: Record<T, string>;
  value: T;
  onChoose: (value: T) => void;
}) {
  return (
    <Box role="radiogroup" aria-label={label} sx={{ mb: 1 }}>
      <Typography variant="caption">{label}</Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        {(Object.keys(words) as T[]).map((v) => (
          <ButtonBase
            key={v}
            role="radio"
            aria-checked={v === value}
            onClick={() => onChoose(v)}
            sx={{
              minHeight: 48,
              px: 1.5,
              fontSize: 16,
              border: `2px solid ${v === value ? grey.ink : grey.hairline}`,
              fontWeight: v === value ? 600 : 400,
            }}
          >
            {words[v]}
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}

/** "acrylic, dry": one chip that opens how colours are looked at. */
export function ConditionsChip({ view, onSet }: Viewed) {
  const [open, setOpen] = useState(false);
  const light = view.light === "D65" ? "" : `, ${lightWords[view.light]}`;
  return (
    <>
      <Button
        variant="outlined"
        color="inherit"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        sx={{ flex: "none", px: 1.25, fontSize: 14, borderColor: grey.hairline }}
      >
        {mediumWords[view.medium]}, {judgedWords[view.judged]}
        {light}
        <svg width={9} height={6} viewBox="0 0 9 6" aria-hidden style={{ marginLeft: 6 }}>
          <path d="M1 1 L4.5 4.8 L8 1" fill="none" stroke={grey.ink} strokeWidth={1.4} />
        </svg>
      </Button>
      <FromBelow label="how colours are looked at" open={open} onClose={() => setOpen(false)}>
        <Row
          label="medium"
          words={mediumWords}
          value={view.medium}
          onChoose={(medium) => onSet({ medium })}
        />
        <Row
          label="light"
          words={lightWords}
          value={view.light}
          onChoose={(chosen) => onSet({ light: chosen })}
        />
        <Row
          label="judged"
          words={judgedWords}
          value={view.judged}
          onChoose={(judged) => onSet({ judged })}
        />
        <Button variant="outlined" color="inherit" onClick={() => setOpen(false)}>
          done
        </Button>
      </FromBelow>
    </>
  );
}

/** The other places, the surround, and what belongs to the painter. */
export function More({
  painter,
  open,
  onClose,
}: {
  painter: Profile;
  open: boolean;
  onClose: () => void;
}) {
  const { pathOf, present } = usePlaces();
  const { deeds, dialogs } = usePainterDeeds(painter);
  const { held, atHand } = useHolding();
  const row = { minHeight: 48, justifyContent: "flex-start", fontSize: 17, width: 1 };
  return (
    <>
      <FromBelow label="more" open={open} onClose={onClose}>
        {behind.map((p) => (
          <ButtonBase
            key={p.word}
            component={Link}
            to={pathOf(p.path)}
            onClick={onClose}
            aria-current={p === places[present] ? "page" : undefined}
            sx={{ ...row, fontWeight: 500 }}
          >
            {p.word}
          </ButtonBase>
        ))}
        {!held &&
          atHand.map((t, i) => (
            <ButtonBase
              key={i}
              onClick={() => {
                onClose();
                hold(t);
              }}
              sx={row}
            >
              hold {t.name}
            </ButtonBase>
          ))}
        <Box
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 2,
            minHeight: 56,
            borderTop: `1px solid ${grey.hairline}`,
            "& button": { width: 48, height: 48 },
          }}
        >
          <Typography sx={{ flex: 1 }}>surround</Typography>
          <Squint />
          <SurroundChoice />
        </Box>
        <Typography variant="caption" sx={{ borderTop: `1px solid ${grey.hairline}`, pt: 1 }}>
          {painter.name}
        </Typography>
        {deeds.map(({ words, does }) => (
          <ButtonBase
            key={words}
            onClick={() => {
              onClose();
              does();
            }}
            sx={row}
          >
            {words}
          </ButtonBase>
        ))}
      </FromBelow>
      {dialogs}
    </>
  );
}
