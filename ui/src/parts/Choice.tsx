import ButtonBase from "@mui/material/ButtonBase";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState, type ReactNode } from "react";
import { grey } from "../drawing/style";
import { VisuallyHidden } from "./VisuallyHidden";

/** A word that opens a list of choices below it. */
export function Choice({
  label,
  shown,
  children,
  bold = true,
  ready = true,
}: {
  label: string;
  shown: ReactNode;
  children: (close: () => void) => ReactNode;
  bold?: boolean;
  /** Whether the list is all there: one that grows while it is open moves under the pointer. */
  ready?: boolean;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <ButtonBase
        data-choice={label}
        aria-haspopup="menu"
        disabled={!ready}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{
          fontSize: 15,
          fontWeight: bold ? 500 : 400,
          py: 1.25,
          gap: 0.75,
          minWidth: { xs: 48, md: 0 },
          justifyContent: "flex-start", // also where it is stretched
          "&:hover": { bgcolor: grey.track },
        }}
      >
        {shown !== label && <VisuallyHidden>{label}</VisuallyHidden>}
        {shown}
        <svg width={9} height={6} viewBox="0 0 9 6" aria-hidden>
          <path d="M1 1 L4.5 4.8 L8 1" fill="none" stroke={grey.ink} strokeWidth={1.4} />
        </svg>
      </ButtonBase>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        {children(close)}
      </Menu>
    </>
  );
}

/** A word that opens a list to take one of; the list closes on it. */
export function OneOf<T extends string>({
  label,
  shown,
  of,
  value,
  onChoose,
  bold = false,
  ready,
}: {
  label: string;
  shown: string;
  of: readonly { value: T; name: string }[];
  value: T;
  onChoose: (value: T) => void;
  bold?: boolean;
  ready?: boolean;
}) {
  return (
    <Choice label={label} bold={bold} shown={shown} ready={ready}>
      {(close) =>
        of.map((o) => (
          <MenuItem
            key={o.value}
            selected={o.value === value}
            onClick={() => {
              close();
              onChoose(o.value);
            }}
          >
            {o.name}
          </MenuItem>
        ))
      }
    </Choice>
  );
}

/** What one sets: the word that holds, which opens what else there is. */
export function Setting<T extends string>({
  label,
  words,
  value,
  onChoose,
  bold,
}: {
  label: string;
  words: Record<T, string>;
  value: T;
  onChoose: (value: T) => void;
  bold?: boolean;
}) {
  return (
    <OneOf
      label={`${label}:`}
      bold={bold}
      shown={words[value]}
      of={choicesOf(words)}
      value={value}
      onChoose={onChoose}
    />
  );
}

/** A table of words as what to choose from. */
export function choicesOf<T extends string>(
  words: Record<T, string>,
): { value: T; name: string }[] {
  return (Object.keys(words) as T[]).map((value) => ({ value, name: words[value] }));
}
