import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useState, type DragEvent } from "react";
import type { SystemPlaces } from "../api/client";
import { Choice } from "../parts/Choice";
import { leanWords } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { Drop, LeanMark } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { dragged, type At } from "./drag";

/** The three roles round a small wheel, their places, and what fills the sections between. */
export function Places({
  places,
  at,
  onAt,
  onPut,
  onTake,
  onChoose,
}: {
  places: SystemPlaces;
  at: At;
  onAt: (at: At) => void;
  onPut: (at: At, ref: string) => void;
  onTake: (at: At) => void;
  onChoose: (section: number, pair: string[]) => void;
}) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "repeat(3, minmax(0, 1fr))" },
        columnGap: 2,
        rowGap: 1,
      }}
    >
      {places.roles.map((r, role) => (
        <Box key={r.role} sx={{ borderTop: `2px solid ${grey.ink}`, pt: 0.75 }}>
          <Typography variant="h3" sx={{ "&::first-letter": { textTransform: "uppercase" } }}>
            {r.role}
          </Typography>
          <Box role="listbox" aria-label={`places of the ${r.role}`}>
            {r.places.map((p, place) => (
              <PlaceMark
                key={place}
                place={p}
                chosen={at.role === role && at.place === place}
                onChoose={() => onAt({ role, place })}
                onDrop={(ref) => onPut({ role, place }, ref)}
                onTake={() => onTake({ role, place })}
              />
            ))}
          </Box>
          {r.places.length < r.most && r.places.every((p) => p.paint) && (
            <Button
              color="inherit"
              size="small"
              onClick={() => onAt({ role, place: r.places.length })}
              sx={{
                px: 0.5,
                fontWeight: at.role === role && at.place === r.places.length ? 600 : 400,
              }}
            >
              one more {r.role}
            </Button>
          )}
        </Box>
      ))}
      {places.sections.map((s, k) => (
        <Box
          key={s.name}
          aria-label={`section: ${s.name}`}
          sx={{
            borderTop: `1px solid ${grey.hairline}`,
            pt: 0.75,
            display: "flex",
            alignItems: "baseline",
            gap: 1,
            flexWrap: "wrap",
          }}
        >
          {s.verdict && s.verdict !== "neutral" && (
            <Drop verdict={s.verdict as "clean"} height={14} />
          )}
          <Typography variant="subtitle2">{s.name}</Typography>
          {s.from ? (
            (s.pairings?.length ?? 0) > 1 ? (
              <Choice
                label={`pair for ${s.name}`}
                bold={false}
                shown={
                  <span>{`${nameOfRef(places, s.from)} with ${nameOfRef(places, s.to ?? "")}${s.chosen ? ", chosen" : ", brightest"}`}</span>
                }
              >
                {(close) => [
                  ...(s.pairings ?? []).map((pair) => (
                    <MenuItem
                      key={pair}
                      onClick={() => {
                        close();
                        onChoose(k, pair.split(" "));
                      }}
                    >
                      {pair
                        .split(" ")
                        .map((ref) => nameOfRef(places, ref))
                        .join(" with ")}
                    </MenuItem>
                  )),
                  <MenuItem
                    key="brightest"
                    onClick={() => {
                      close();
                      onChoose(k, []);
                    }}
                  >
                    whichever is brightest
                  </MenuItem>,
                ]}
              </Choice>
            ) : (
              <Typography variant="body2" component="span">
                {nameOfRef(places, s.from)} with {nameOfRef(places, s.to ?? "")}
              </Typography>
            )
          ) : (
            <Typography variant="body2" component="span" sx={{ color: grey.third }}>
              empty: a role is missing
            </Typography>
          )}
        </Box>
      ))}
    </Box>
  );
}

function nameOfRef(places: SystemPlaces, ref: string): string {
  for (const r of places.roles) {
    for (const p of r.places) {
      if (p.ref === ref && p.paint)
        return p.paint.ci && !p.paint.ci.includes(",") ? p.paint.ci : p.paint.name;
    }
  }
  return ref;
}

function PlaceMark({
  place,
  chosen,
  onChoose,
  onDrop,
  onTake,
}: {
  place: SystemPlaces["roles"][number]["places"][number];
  chosen: boolean;
  onChoose: () => void;
  onDrop: (ref: string) => void;
  onTake: () => void;
}) {
  const [over, setOver] = useState(false);
  const p = place.paint;
  return (
    <Box
      role="option"
      aria-selected={chosen}
      data-place={p?.id ?? "empty"}
      tabIndex={0}
      draggable={!!p}
      onDragStart={(e: DragEvent) => place.ref && e.dataTransfer.setData(dragged, place.ref)}
      onDragOver={(e: DragEvent) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e: DragEvent) => {
        e.preventDefault();
        setOver(false);
        const ref = e.dataTransfer.getData(dragged);
        if (ref) onDrop(ref);
      }}
      onClick={onChoose}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onChoose();
        } else if (e.key === "Delete" || e.key === "Backspace") {
          onTake();
        }
      }}
      sx={{
        minHeight: 74,
        p: 0.75,
        mb: 0.75,
        cursor: "pointer",
        border: `${chosen ? 2 : 1}px ${p ? "solid" : "dashed"} ${chosen || over ? grey.ink : grey.hairline}`,
      }}
    >
      {p ? (
        <>
          <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
            <PaintStrip paint={p} width={72} height={34} />
            <Box sx={{ minWidth: 0 }}>
              <Typography
                variant="body2"
                sx={{
                  fontWeight: 500,
                  overflow: "hidden",
                  textOverflow: "ellipsis",
                  whiteSpace: "nowrap",
                }}
              >
                {p.name}
              </Typography>
              <Typography variant="caption" sx={{ fontFamily: figures }}>
                {p.ci}
              </Typography>
            </Box>
          </Box>
          {p.lean && (
            <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, mt: 0.5 }}>
              <LeanMark lean={p.lean} />
              <Typography variant="caption" sx={{ color: grey.ink }}>
                {leanWords(p.lean)}
              </Typography>
            </Box>
          )}
          {place.warning && (
            <Typography
              variant="caption"
              component="p"
              sx={{ color: grey.ink, borderLeft: `3px solid ${grey.ink}`, pl: 0.75, mt: 0.5 }}
            >
              {place.warning}
            </Typography>
          )}
        </>
      ) : (
        <Typography variant="body2" sx={{ color: grey.third, pt: 2, textAlign: "center" }}>
          {place.want === "centred"
            ? "any, best centred"
            : place.want
              ? `one that leans to ${place.want}`
              : "empty"}
        </Typography>
      )}
    </Box>
  );
}
