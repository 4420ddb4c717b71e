import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { grey } from "../drawing/style";
import { OneOf } from "../parts/Choice";
import type { Comparison } from "./shapes";

/** Where one of two systems is cleaner or brighter than the other, and which two; nothing of a system alone. */
export function Differs({
  got,
  pair,
  onPair,
}: {
  got: Comparison;
  pair: number;
  onPair: (pair: number) => void;
}) {
  const difference = got.differences[pair];
  if (!difference) return null;
  return (
    <Box sx={{ borderTop: `1px solid ${grey.hairline}`, mt: 0.5, pt: 0.5 }}>
      <Typography>{difference.says}</Typography>
      <Typography variant="caption">
        outside the rings: black where {got.systems[difference.a]!.name} is cleaner, white where{" "}
        {got.systems[difference.b]!.name} is; narrow where only brighter
      </Typography>
      {got.differences.length > 1 && (
        <Box>
          <OneOf
            label="another two"
            shown="another two"
            of={got.differences.map((d, i) => ({
              value: String(i),
              name: `${got.systems[d.a]!.name}, ${got.systems[d.b]!.name}`,
            }))}
            value={String(pair)}
            onChoose={(v) => onPair(Number(v))}
          />
        </Box>
      )}
    </Box>
  );
}
