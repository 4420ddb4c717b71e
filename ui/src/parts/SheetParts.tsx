import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import { Choice } from "./Choice";
import { extraWords, partWords, type SheetExtra } from "./choices";
import type { Schemas } from "../api/client";

/** Which parts of a sheet are painted, and what is added; one part at least is. */
export function SheetParts({
  kind,
  without,
  plus,
  onTurn,
}: {
  kind: Schemas["SheetKind"];
  without: readonly string[];
  plus: readonly string[];
  /** Of two quick presses both count: what is turned is said, and not what the list is then. */
  onTurn: (list: "without" | "with", one: string) => void;
}) {
  const words = partWords[kind] ?? {};
  const parts = Object.keys(words);
  const extras = kind === "glazes" ? [] : (Object.keys(extraWords) as SheetExtra[]);
  const left = parts.filter((p) => !without.includes(p));
  const added = extras.filter((e) => plus.includes(e));
  const more = added.length ? `and ${added.length} more` : "";
  const some =
    left.length === parts.length
      ? "all of it"
      : left.length === 1
        ? `only ${words[left[0]!]}`
        : `${left.length} parts of it`;
  const shown =
    parts.length === 0 ? more || "nothing beside it" : [some, more].filter(Boolean).join(", ");
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
          return item(words[p]!, on, on && left.length === 1, () => onTurn("without", p));
        }),
        extras.length > 0 && parts.length > 0 && (
          <ListSubheader key="more" sx={{ bgcolor: "transparent", lineHeight: "28px" }}>
            beside it
          </ListSubheader>
        ),
        ...extras.map((e) => {
          const on = added.includes(e);
          return item(extraWords[e], on, false, () => onTurn("with", e));
        }),
      ]}
    </Choice>
  );
}
