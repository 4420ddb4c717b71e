import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState, type DragEvent } from "react";
import type { Paint, SystemPlaces } from "../api/client";
import { leanWords } from "../parts/naming";
import { PaintPicker } from "../parts/PaintPicker";
import { figures, grey } from "../drawing/style";
import { fill } from "../drawing/screen";
import { dragged, type At } from "./drag";
import { VisuallyHidden } from "../parts/VisuallyHidden";

/** What could stand in the place that is chosen. */
export function PlaceCard({
  places,
  at,
  paints,
  onPut,
  onTake,
}: {
  places: SystemPlaces;
  at: At;
  paints: Paint[];
  onPut: (ref: string) => void;
  onTake: () => void;
}) {
  const role = places.roles[at.role]!;
  const place = role.places[at.place];
  const substitutes = place?.substitutes ?? role.places[0]?.substitutes ?? [];
  const [whole, setWhole] = useState(false);
  if (whole) {
    return (
      <Box sx={{ height: { xs: 560, md: 1 } }}>
        <PaintPicker
          role={role.role}
          paints={paints}
          present={place?.ref}
          taken={[]}
          onClose={() => setWhole(false)}
          onPick={(p) => onPut(p.id)}
        />
      </Box>
    );
  }
  const groups = [
    { title: "from your box", list: substitutes.filter((s) => s.inBox) },
    { title: "from the library", list: substitutes.filter((s) => !s.inBox) },
  ];
  return (
    <Box component="section" aria-label="substitutes">
      <Typography variant="h2">{place?.paint ? `Instead of it` : `Which ${role.role}?`}</Typography>
      <Typography sx={{ color: grey.second }}>
        {place?.want && place.want !== "centred"
          ? `This place wants one that leans to ${place.want}. `
          : ""}
        The best first: by role, lean, strength, hiding and price.
      </Typography>
      {groups.map((g) => (
        <Box key={g.title} sx={{ mt: 1.5 }}>
          <Typography variant="caption">{g.title}</Typography>
          {g.list.length === 0 && <Typography variant="body2">none that belongs here</Typography>}
          {g.list.map((s) => (
            <Box
              key={s.ref}
              component="button"
              draggable
              onDragStart={(e: DragEvent) => e.dataTransfer.setData(dragged, s.ref)}
              onClick={() => onPut(s.ref)}
              sx={{
                display: "flex",
                width: 1,
                alignItems: "center",
                gap: 1,
                border: 0,
                borderTop: `1px solid ${grey.hairline}`,
                bgcolor: "transparent",
                color: grey.ink,
                font: "inherit",
                textAlign: "left",
                minHeight: { xs: 48, md: 44 },
                cursor: "pointer",
                "&:hover": { bgcolor: grey.track },
              }}
            >
              <VisuallyHidden>put</VisuallyHidden>
              <svg width={28} height={28} aria-hidden>
                <rect width={28} height={28} fill={fill(s.shown)} />
              </svg>
              <Box
                component="span"
                sx={{
                  flex: 1,
                  minWidth: 0,
                  overflow: "hidden",
                  textOverflow: "ellipsis",
                  whiteSpace: "nowrap",
                  fontSize: 14,
                }}
              >
                {s.name}{" "}
                <Box component="span" sx={{ fontFamily: figures, fontSize: 12, color: grey.third }}>
                  {s.ci}
                </Box>
              </Box>
              {s.lean && (
                <Box component="span" sx={{ fontSize: 12, whiteSpace: "nowrap" }}>
                  {leanWords(s.lean)}
                </Box>
              )}
            </Box>
          ))}
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1, mt: 1.5 }}>
        <Button variant="outlined" onClick={() => setWhole(true)}>
          the whole library
        </Button>
        {place?.paint && (
          <Button color="inherit" onClick={onTake}>
            take it out
          </Button>
        )}
      </Box>
    </Box>
  );
}
