import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { InMeasure } from "../parts/InMeasure";
import type { InPile } from "./usePiles";

/** What a pile is beside what is wanted, and what brings it there. */
export function Corrected({
  got,
  onAdd,
}: {
  got: Schemas["Correction"];
  onAdd?: (add: InPile[]) => void;
}) {
  const add = got.advice === "keep part" ? got.keepAdd : got.add;
  return (
    <Box aria-label="what to add" sx={{ mt: 1 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
        <Typography sx={{ flex: 1 }}>
          {got.advice !== "leave it" && (
            <Box component="span" sx={{ fontWeight: 600 }}>
              It is {got.off}.{" "}
            </Box>
          )}
          {got.says}
        </Typography>
        {onAdd && got.add.length > 0 && got.reached && got.advice !== "keep part" && (
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => onAdd(got.add.map((a) => ({ ref: a.paint, parts: a.parts })))}
          >
            add it
          </Button>
        )}
      </Box>
      {add.length > 0 && (
        <InMeasure parts={add} view={got} times={sum(add) / sum(got.have.parts)}>
          {null}
        </InMeasure>
      )}
    </Box>
  );
}

const sum = (of: { parts: number }[]) => of.reduce((all, p) => all + p.parts, 0);
