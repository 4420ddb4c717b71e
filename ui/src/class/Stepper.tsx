import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { KeyboardEvent, ReactNode } from "react";
import { grey } from "../drawing/style";

/** One of a few words, by thumb or by arrow keys: what the figure sets too. */
export function Stepper<T extends string>({
  label,
  of,
  value,
  onSet,
  mark,
}: {
  label: string;
  of: readonly T[];
  value: T | undefined;
  onSet: (value: T) => void;
  /** What stands before the word. */
  mark?: ReactNode;
}) {
  const at = value === undefined ? -1 : of.indexOf(value);
  const go = (by: 1 | -1) => onSet(of[at < 0 ? 0 : (at + by + of.length) % of.length]!);
  const keys = (e: KeyboardEvent) => {
    const by = ({ ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 } as const)[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    go(by);
  };
  const step = (by: 1 | -1) => (
    <ButtonBase
      aria-label={`${label}: ${by < 0 ? "the one before" : "the next one"}`}
      tabIndex={-1}
      onClick={() => go(by)}
      sx={{ width: 48, height: 48, "&:hover": { bgcolor: grey.track } }}
    >
      <svg width={14} height={14} aria-hidden>
        <path
          d={by < 0 ? "M10 1 L3 7 L10 13" : "M4 1 L11 7 L4 13"}
          fill="none"
          stroke={grey.ink}
          strokeWidth={2}
        />
      </svg>
    </ButtonBase>
  );
  return (
    <Box sx={{ display: "flex", alignItems: "center" }}>
      {step(-1)}
      <Box
        role="spinbutton"
        tabIndex={0}
        aria-label={label}
        aria-valuenow={at < 0 ? undefined : at}
        aria-valuemin={0}
        aria-valuemax={of.length - 1}
        aria-valuetext={value ?? "not said"}
        onKeyDown={keys}
        sx={{
          flex: 1,
          minWidth: 104,
          minHeight: 48,
          display: "flex",
          alignItems: "center",
          justifyContent: "center",
          gap: 0.75,
          fontSize: 16,
          fontWeight: value ? 600 : 400,
          color: value ? grey.ink : grey.third,
        }}
      >
        {value && mark}
        {value ?? label}
      </Box>
      {step(1)}
    </Box>
  );
}
