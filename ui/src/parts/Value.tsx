import type { Shown } from "../drawing/shapes";
import { figures } from "../drawing/style";
import { value } from "../drawing/value";
import { Word } from "./Word";

/** "value 5.3". */
export function Value({ of }: { of: Shown }) {
  return (
    <span style={{ whiteSpace: "nowrap" }}>
      <Word of="value" /> <span style={{ fontFamily: figures }}>{value(of)}</span>
    </span>
  );
}
