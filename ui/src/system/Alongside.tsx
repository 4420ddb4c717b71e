import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { DragEvent } from "react";
import type { KeptTube, Selection, SystemPlaces } from "../api/client";
import { OneOf } from "../parts/Choice";
import { nameOf } from "../parts/naming";
import { grey } from "../drawing/style";
import { PaintStrip } from "../drawing/PaintStrip";
import { dragged } from "./drag";
import { Word } from "../parts/Word";

/** The box, to drag from or to put into the chosen place. */
export function BoxRow({
  tubes,
  taken,
  onPick,
}: {
  tubes: KeptTube[];
  taken: string[];
  onPick: (ref: string) => void;
}) {
  if (tubes.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="caption">
        your box: drag a paint to a place, or press it for the chosen one
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: "4px" }}>
        {tubes.map((t) => {
          const name = nameOf(t);
          return (
            <Box
              key={t.id}
              component="button"
              draggable
              onDragStart={(e: DragEvent) => e.dataTransfer.setData(dragged, t.paint.id)}
              onClick={() => onPick(t.paint.id)}
              aria-label={`put ${name} in the place`}
              title={`${t.paint.ci} ${name}`}
              sx={{
                p: 0,
                border: `2px solid ${taken.includes(t.paint.id) ? grey.ink : "transparent"}`,
                bgcolor: "transparent",
                cursor: "grab",
                lineHeight: 0,
              }}
            >
              <PaintStrip paint={t.paint} width={44} height={28} />
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const riderWords = {
  white: "white",
  black: "black",
  blueGrey: "dark blue-grey",
  convenience: "other paint",
} as const;

/** What rides along without being a primary. */
export function Riders({
  offers,
  riding,
  onSet,
}: {
  offers: SystemPlaces["riders"];
  riding: Selection["riders"];
  onSet: (r: Selection["riders"]) => void;
}) {
  return (
    <Box
      sx={{ display: "flex", flexWrap: "wrap", columnGap: 2.5, alignItems: "baseline", mt: 1.5 }}
    >
      <Typography variant="caption">
        <Word of="riding" />
      </Typography>
      {offers.map(({ rider, usual, offers }) => {
        const of = [
          {
            value: "",
            name: usual ? `${usual}, as usual` : `no ${riderWords[rider]}`,
          },
          ...offers.map((o) => ({ value: o.ref, name: o.name })),
        ];
        const now = riding[rider] ?? "";
        return (
          <OneOf
            key={rider}
            label={`rider: ${riderWords[rider]}`}
            shown={of.find((o) => o.value === now)?.name ?? now}
            of={of}
            value={now}
            onChoose={(ref) => onSet({ [rider]: ref })}
          />
        );
      })}
    </Box>
  );
}
