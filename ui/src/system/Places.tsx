import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useState, type DragEvent } from "react";
import type { Schemas, SystemPlaces } from "../api/client";
import { Choice } from "../parts/Choice";
import { leanWords } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { Drop, LeanMark } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { dragged, type At } from "./drag";
import { SystemRing } from "../parts/SystemRing";

type Way = Schemas["Way"];

/** Where the roles and the ring stand on a desk, and one below the other on a phone. */
const areas = {
  xs: '"ring" "role0" "role1" "role2"',
  sm: '"role0 role0 role0" "role2 ring role1"',
};

/** The three roles round a small wheel, their places, and what fills the sections between. */
export function Places({
  places,
  at,
  pointed,
  onAt,
  onPut,
  onTake,
  onChoose,
}: {
  places: SystemPlaces;
  at: At;
  /** What a substitute that is pointed at would make of its sections. */
  pointed: Way[];
  onAt: (at: At) => void;
  onPut: (at: At, ref: string) => void;
  onTake: (at: At) => void;
  onChoose: (section: number, pair: string[]) => void;
}) {
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateAreas: areas,
        gridTemplateColumns: {
          xs: "minmax(0, 1fr)",
          sm: "minmax(132px, 190px) minmax(0, 400px) minmax(132px, 190px)",
        },
        justifyContent: "space-between",
        columnGap: 1.5,
        rowGap: 0.5,
      }}
    >
      {places.roles.map((r, role) => (
        <Box
          key={r.role}
          sx={{
            gridArea: `role${role}`,
            ...(role === 0
              ? { justifySelf: { sm: "center" }, textAlign: { sm: "center" } }
              : { alignSelf: { sm: "end" } }),
          }}
        >
          <Typography variant="h3" sx={{ "&::first-letter": { textTransform: "uppercase" } }}>
            {r.role}
          </Typography>
          <Box
            role="listbox"
            aria-label={`places of the ${r.role}`}
            sx={{
              display: { xs: "flex", sm: role === 0 ? "flex" : "block" },
              flexWrap: "wrap",
              gap: 1,
              textAlign: "left",
              "& > *": { width: { xs: 150, sm: role === 0 ? 166 : 1 } },
            }}
          >
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
      <Box sx={{ gridArea: "ring", position: "relative" }}>
        <SystemRing ways={places.sections.map((s) => s.way)} pointed={pointed} />
        {places.sections.map((s, k) => (
          <Section
            key={s.name}
            places={places}
            section={s}
            way={pointed.find((p) => p.section === k) ?? s.way}
            inPlace={corners[k]!}
            onChoose={(pair) => onChoose(k, pair)}
          />
        ))}
        {places.mean > 0 && (
          <Typography
            aria-label="what it reaches"
            sx={{
              position: "absolute",
              inset: { xs: "53% 22% auto 22%", sm: "49% 22% auto 22%" },
              textAlign: "center",
              color: grey.third,
              lineHeight: "18px",
            }}
          >
            {places.clean === 1
              ? "every hue clean"
              : `clean at ${Math.round(100 * places.clean)} % of the hues`}
            <br />
            <Box component="span" sx={{ fontFamily: figures, color: grey.ink }}>
              {places.mean.toFixed(2)}
            </Box>{" "}
            of the possible
          </Typography>
        )}
      </Box>
    </Box>
  );
}

/** Where the words of a section stand inside the ring. */
const corners = [
  { top: { xs: "20%", sm: "27%" }, left: "51%", right: "14%" },
  { top: { xs: "68%", sm: "66%" }, left: "31%", right: "31%" },
  { top: { xs: "20%", sm: "27%" }, left: "14%", right: "51%" },
];

/** What fills a section: its secondary, how clean it is half way, and which two make it. */
function Section({
  places,
  section: s,
  way,
  inPlace,
  onChoose,
}: {
  places: SystemPlaces;
  section: SystemPlaces["sections"][number];
  way?: Way;
  inPlace: (typeof corners)[number];
  onChoose: (pair: string[]) => void;
}) {
  const pair = `${nameOfRef(places, s.from ?? "")} with ${nameOfRef(places, s.to ?? "")}`;
  return (
    <Box
      aria-label={`section: ${s.name}`}
      role="group"
      sx={{
        position: "absolute",
        ...inPlace,
        display: "flex",
        flexDirection: "column",
        alignItems: "center",
        textAlign: "center",
      }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
        {way && way.verdict !== "neutral" && <Drop verdict={way.verdict} height={18} />}
        <Typography component="span" sx={{ fontSize: 18, fontWeight: 600, lineHeight: "22px" }}>
          {s.name}
        </Typography>
      </Box>
      {way && way.verdict !== "neutral" && (
        <Typography variant="caption" component="p">
          {way.verdict} <span style={{ fontFamily: figures }}>{way.retention.toFixed(2)}</span>
        </Typography>
      )}
      {!s.from ? (
        <Typography variant="caption">empty: a role is missing</Typography>
      ) : (s.pairings?.length ?? 0) > 1 ? (
        <Box sx={{ "& button": { py: 0.25, fontSize: 12, lineHeight: "16px" } }}>
          <Choice
            label={`pair for ${s.name}`}
            bold={false}
            shown={<span>{`${pair}${s.chosen ? ", chosen" : ""}`}</span>}
          >
            {(close) => [
              ...(s.pairings ?? []).map((of) => (
                <MenuItem
                  key={of}
                  onClick={() => {
                    close();
                    onChoose(of.split(" "));
                  }}
                >
                  {of
                    .split(" ")
                    .map((ref) => nameOfRef(places, ref))
                    .join(" with ")}
                </MenuItem>
              )),
              <MenuItem
                key="brightest"
                onClick={() => {
                  close();
                  onChoose([]);
                }}
              >
                whichever is brightest
              </MenuItem>,
            ]}
          </Choice>
        </Box>
      ) : (
        <Typography variant="caption">{pair}</Typography>
      )}
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
        minHeight: 66,
        mb: 0.75,
        cursor: "pointer",
        outline: over ? `2px dashed ${grey.ink}` : undefined,
        border: p ? 0 : `1px dashed ${chosen ? grey.ink : grey.hairline}`,
        "& svg:first-of-type": { display: "block" },
      }}
    >
      {p ? (
        <>
          <Box sx={{ border: `3px solid ${chosen ? grey.ink : "transparent"}` }}>
            <PaintStrip paint={p} width="100%" height={32} />
          </Box>
          <Typography sx={{ fontWeight: 500, lineHeight: "18px", overflowWrap: "anywhere" }}>
            {p.name}{" "}
            <Box component="span" sx={{ fontFamily: figures, fontSize: 12, color: grey.third }}>
              {p.ci}
            </Box>
          </Typography>
          {p.lean && (
            <Box sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
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
