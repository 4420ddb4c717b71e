import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState, type DragEvent } from "react";
import type { Paint, Schemas, SystemPlaces } from "../api/client";
import { leanWords } from "../parts/naming";
import { PaintPicker } from "../parts/PaintPicker";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { dragged, type At } from "./drag";
import { VisuallyHidden } from "../parts/VisuallyHidden";

/** What could stand in the place that is chosen. */
export function PlaceCard({
  places,
  at,
  paints,
  instead,
  onPoint,
  onPut,
  onTake,
}: {
  places: SystemPlaces;
  at: At;
  paints: Paint[];
  /** What each would make of the sections that the place faces, the present paint among them. */
  instead: Schemas["Instead"][];
  onPoint: (ref: string | null) => void;
  onPut: (ref: string) => void;
  onTake: () => void;
}) {
  const role = places.roles[at.role]!;
  const place = role.places[at.place];
  const substitutes = place?.substitutes ?? role.places[0]?.substitutes ?? [];
  const [whole, setWhole] = useState(false);
  const ways = (ref: string) => instead.find((i) => i.ref === ref)?.ways ?? [];
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
      <Typography variant="h2">
        {place?.paint ? `Instead of the ${place.paint.name}` : `Which ${role.role}?`}
      </Typography>
      <Typography sx={{ color: grey.second }}>
        {place?.want && place.want !== "centred"
          ? `This place wants one that leans to ${place.want}. `
          : ""}
        {namesOf(places, instead)}thick is bright. The best first: by role, lean, strength, hiding
        and price.
      </Typography>
      {place?.paint && (
        <Box sx={{ mt: 1 }}>
          <Typography sx={{ fontWeight: 600, lineHeight: "18px" }}>
            {place.paint.name}{" "}
            <Box component="span" sx={{ fontFamily: figures, fontSize: 12 }}>
              {place.paint.ci}
            </Box>
          </Typography>
          <Ways of={ways(place.ref ?? "")} />
        </Box>
      )}
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
              onMouseEnter={() => onPoint(s.ref)}
              onMouseLeave={() => onPoint(null)}
              onFocus={() => onPoint(s.ref)}
              onBlur={() => onPoint(null)}
              sx={{
                display: "block",
                width: 1,
                border: 0,
                borderTop: `1px solid ${grey.hairline}`,
                bgcolor: "transparent",
                color: grey.ink,
                font: "inherit",
                textAlign: "left",
                p: "3px 0",
                minHeight: { xs: 48, md: 44 },
                cursor: "pointer",
                "&:hover": { bgcolor: grey.track },
              }}
            >
              <VisuallyHidden>put</VisuallyHidden>
              <Box component="span" sx={{ display: "flex", gap: 1, alignItems: "baseline" }}>
                <Box component="span" sx={{ flex: 1, fontSize: 14, lineHeight: "18px" }}>
                  {s.name}{" "}
                  <Box
                    component="span"
                    sx={{ fontFamily: figures, fontSize: 12, color: grey.third }}
                  >
                    {s.ci}
                  </Box>
                </Box>
                {s.lean && (
                  <Box component="span" sx={{ fontSize: 12, whiteSpace: "nowrap" }}>
                    {leanWords(s.lean)}
                  </Box>
                )}
              </Box>
              <Ways of={ways(s.ref)} />
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

/** "what the violet would become; ": of the sections that a place faces. */
function namesOf(places: SystemPlaces, instead: Schemas["Instead"][]) {
  const names = (instead[0]?.ways ?? []).map((w) => places.sections[w.section]!.name);
  return names.length > 0 ? `What the ${names.join(" and the ")} would become; ` : "";
}

/** The ribbons that a paint would make, and what is left half way. */
function Ways({ of }: { of: Schemas["Way"][] }) {
  return (
    <Box component="span" sx={{ display: "flex", gap: 1.5, minHeight: 20 }}>
      {of.map((w) => (
        <Box
          key={w.section}
          component="span"
          sx={{ flex: 1, display: "flex", alignItems: "center", gap: 0.75 }}
        >
          <Box component="span" sx={{ flex: 1 }}>
            <Ribbon band={w.band} height={20} middle={false} />
          </Box>
          <Drop verdict={w.verdict} height={14} />
          <Box component="span" sx={{ fontFamily: figures, fontSize: 13 }}>
            {w.retention.toFixed(2)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
