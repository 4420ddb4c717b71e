import MenuItem from "@mui/material/MenuItem";
import { Choice } from "./Choice";
import { partWords, type SheetPart } from "./choices";

const parts = Object.keys(partWords) as SheetPart[];

/** Which parts of a worksheet are painted; one at least is. */
export function SheetParts({
  without,
  onLeaveOut,
}: {
  without: readonly string[];
  onLeaveOut: (without: SheetPart[]) => void;
}) {
  const left = parts.filter((p) => !without.includes(p));
  const shown =
    left.length === parts.length
      ? "all of it"
      : left.length === 1
        ? `only ${partWords[left[0]!]}`
        : `${left.length} parts of it`;
  return (
    <Choice label={`parts: ${shown}`} bold={false} shown={shown}>
      {() =>
        parts.map((p) => {
          const on = left.includes(p);
          return (
            <MenuItem
              key={p}
              role="menuitemcheckbox"
              aria-checked={on}
              selected={on}
              disabled={on && left.length === 1}
              onClick={() => onLeaveOut(parts.filter((q) => (q === p ? on : without.includes(q))))}
            >
              {on && "✓ "}
              {partWords[p]}
            </MenuItem>
          );
        })
      }
    </Choice>
  );
}
