import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import { Choice } from "./Choice";
import { extraWords, partWords, type SheetExtra, type SheetPart } from "./choices";

const parts = Object.keys(partWords) as SheetPart[];
const extras = Object.keys(extraWords) as SheetExtra[];

/** Which parts of a worksheet are painted, and what is added; one part at least is. */
export function SheetParts({
  without,
  plus,
  onChange,
}: {
  without: readonly string[];
  plus: readonly string[];
  onChange: (without: SheetPart[], plus: SheetExtra[]) => void;
}) {
  const left = parts.filter((p) => !without.includes(p));
  const added = extras.filter((e) => plus.includes(e));
  const out = parts.filter((p) => without.includes(p));
  const shown = `${
    left.length === parts.length
      ? "all of it"
      : left.length === 1
        ? `only ${partWords[left[0]!]}`
        : `${left.length} parts of it`
  }${added.length ? `, and ${added.length} more` : ""}`;
  const item = (words: string, on: boolean, fixed: boolean, turn: () => void) => (
    <MenuItem
      key={words}
      role="menuitemcheckbox"
      aria-checked={on}
      selected={on}
      disabled={fixed}
      onClick={turn}
    >
      {on && "✓ "}
      {words}
    </MenuItem>
  );
  return (
    <Choice label={`parts: ${shown}`} bold={false} shown={shown}>
      {() => [
        ...parts.map((p) => {
          const on = left.includes(p);
          return item(partWords[p], on, on && left.length === 1, () =>
            onChange(on ? [...out, p] : out.filter((q) => q !== p), added),
          );
        }),
        <ListSubheader key="more" sx={{ bgcolor: "transparent", lineHeight: "28px" }}>
          beside it
        </ListSubheader>,
        ...extras.map((e) => {
          const on = added.includes(e);
          return item(extraWords[e], on, false, () =>
            onChange(out, on ? added.filter((x) => x !== e) : [...added, e]),
          );
        }),
      ]}
    </Choice>
  );
}
