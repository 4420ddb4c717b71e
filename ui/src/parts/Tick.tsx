import ButtonBase from "@mui/material/ButtonBase";
import { grey } from "../drawing/style";

/** Something that holds or does not: its box is filled while it holds. */
export function Tick({
  words,
  on,
  onSet,
}: {
  words: string;
  on: boolean;
  onSet: (on: boolean) => void;
}) {
  return (
    <ButtonBase
      role="checkbox"
      aria-checked={on}
      onClick={() => onSet(!on)}
      sx={{
        gap: 0.75,
        fontSize: 14,
        lineHeight: "20px",
        py: 1,
        "&:hover": { bgcolor: grey.track },
      }}
    >
      <svg width={14} height={14} aria-hidden>
        <rect x={1} y={1} width={12} height={12} fill="none" stroke={grey.ink} strokeWidth={1.5} />
        {on && <rect x={4} y={4} width={6} height={6} fill={grey.ink} />}
      </svg>
      {words}
    </ButtonBase>
  );
}
