import Box from "@mui/material/Box";
import { grey } from "../drawing/style";
import { useColours } from "../drawing/screen";
import { outlines, type Compared } from "./shapes";

/** The line that stands for a system. */
export function LineMark({ index, width = 40 }: { index: number; width?: number }) {
  const { dash, cap } = outlines[index]!;
  return (
    <svg width={width} height={8} aria-hidden style={{ flex: "none" }}>
      <path
        d={`M2 4 H${width - 2}`}
        stroke={grey.ink}
        strokeWidth={2.4}
        strokeDasharray={dash}
        strokeLinecap={cap}
      />
    </svg>
  );
}

/** The undertones of a system's paints. */
export function Tubes({ paints }: { paints: Compared["paints"] }) {
  const { fill } = useColours();
  return (
    <Box component="span" sx={{ display: "inline-flex", flexWrap: "wrap", gap: "2px" }}>
      {paints.map((p) => (
        <svg key={p.id} width={16} height={10}>
          <title>{p.name}</title>
          <rect width={16} height={10} fill={fill(p.undertone)} />
        </svg>
      ))}
    </Box>
  );
}
