import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { answer, client, sendFile, type Schemas, type Sitting } from "../api/client";
import { sittingReadsQuery } from "../api/queries";
import { figures, grey as greys } from "../drawing/style";
import { FileButton } from "../parts/FileButton";
import { OneOf } from "../parts/Choice";
import { usePhone } from "../parts/usePhone";
import { Tabs } from "../parts/Tabs";
import { Tap } from "./Pieces";
import type { ToKeep } from "./toKeep";

type Photo = Schemas["SittingPhoto"];
type Spots = Record<string, Schemas["PhotoSpot"]>;
type Marks = [number, number][];

const pictures = { taken: "as taken", straight: "straightened", even: "light evened" } as const;
const corners = ["upper left", "upper right", "lower right", "lower left"];
const quarters = ["top of the rim", "right", "bottom", "left"];

/** The painted sheet read from one photo. */
export function ByPhoto({
  sitting,
  photos,
  wet,
  demo,
  onKeep,
}: {
  sitting: Sitting;
  photos: Photo[];
  wet: boolean;
  demo: boolean;
  onKeep: (readings: ToKeep[]) => void;
}) {
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<number>();
  const again = () => queries.invalidateQueries(sittingReadsQuery(sitting.id));
  const arrived = async (p: Photo) => {
    await again();
    setChosen(p.id);
  };
  const send = useMutation({
    mutationFn: (file: Blob) => sendFile<Photo>(`sittings/${sitting.id}/photo`, file),
    onSuccess: arrived,
  });
  const take = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/sittings/{id}/standin", {
          params: { path: { id: sitting.id } },
          // What nobody knows of these tubes: one is stronger than it says.
          body: { seed: photos.length + 1, strength: { PB29: 1.6 } },
        }),
      ),
    onSuccess: arrived,
  });
  const drop = useMutation({
    mutationFn: (photo: number) =>
      answer(
        client.DELETE("/api/sittings/{id}/photos/{photo}", {
          params: { path: { id: sitting.id, photo } },
        }),
      ),
    onSuccess: async () => {
      setChosen(undefined);
      await again();
    },
  });
  const photo = photos.find((p) => p.id === chosen) ?? photos.at(-1);
  const wrong = send.error ?? take.error ?? drop.error;
  return (
    <Box component="section" aria-label="by photo">
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          gap: 1.5,
          alignItems: "center",
          "& button, & label": { minHeight: 56 },
        }}
      >
        <FileButton
          label={photo ? "another photo" : "take or choose a photo"}
          accept="image/png,image/jpeg"
          onFile={(f) => send.mutate(f)}
        />
        {demo && (
          <Button
            variant="outlined"
            color="inherit"
            disabled={take.isPending}
            onClick={() => take.mutate()}
          >
            take a photo with the stand-in
          </Button>
        )}
        {(send.isPending || take.isPending) && <Typography role="status">reading</Typography>}
        {photos.length > 1 && (
          <OneOf
            label="which photo"
            shown={`photo ${photos.findIndex((p) => p.id === photo?.id) + 1} of ${photos.length}`}
            of={photos.map((p, i) => ({ value: String(p.id), name: `photo ${i + 1}` }))}
            value={String(photo?.id)}
            onChoose={(v) => setChosen(Number(v))}
          />
        )}
        {photo && <Tap onClick={() => drop.mutate(photo.id)}>delete this photo</Tap>}
      </Box>
      {wrong && <Typography role="alert">{wrong.message}</Typography>}
      {!photo && (
        <Typography sx={{ mt: 1, maxWidth: 560 }}>
          Daylight, no lamp; the whole printed sheet with its four marks, no shadow over it. A wheel
          that was drawn freely is read too: put the marks on its rim by hand. JPEG or PNG up to 12
          MB; what the camera notes of place and time is thrown away.
        </Typography>
      )}
      {photo && (
        <Reading key={photo.id} sitting={sitting} photo={photo} wet={wet} onKeep={onKeep} />
      )}
    </Box>
  );
}

/** What one photo says, its spots laid over it to be moved or left out. */
function Reading({
  sitting,
  photo,
  wet,
  onKeep,
}: {
  sitting: Sitting;
  photo: Photo;
  wet: boolean;
  onKeep: (readings: ToKeep[]) => void;
}) {
  const { type } = usePhone();
  const [marks, setMarks] = useState<Marks>();
  const [drawn, setDrawn] = useState(false);
  const [spots, setSpots] = useState<Spots>({});
  const [measured, setMeasured] = useState("");
  const grey = Number(measured.replace(",", "."));
  const step = grey > 0 && grey < 100 ? grey : undefined;
  const [picture, setPicture] = useState<keyof typeof pictures>("taken");
  const [slot, setSlot] = useState<string>();
  const [drag, setDrag] = useState<number | null>(null);
  const got = useQuery({
    queryKey: ["photo", sitting.id, photo.id, marks, drawn, spots, wet, step],
    queryFn: () =>
      answer(
        client.POST("/api/sittings/{id}/photos/{photo}/read", {
          params: { path: { id: sitting.id, photo: photo.id } },
          body: { marks: marks?.flat(), drawn, spots, wet, grey: step },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const of = `/api/sittings/${sitting.id}/photos/${photo.id}`;
  const read = got.data;
  const placed = marks ?? (read?.found ? (read.marks as Marks) : undefined);
  const shown = read?.refused ? "taken" : picture;
  const straight = shown !== "taken";
  const width = straight ? read!.straightWidth : photo.width;
  const height = straight ? read!.straightHeight : photo.height;
  const inTheWay = (freely: boolean): Marks => {
    const [x, y] = [photo.width / 2, photo.height / 2];
    const r = Math.min(x, y) * 0.6;
    return freely
      ? [
          [x, y - r],
          [x + r, y],
          [x, y + r],
          [x - r, y],
        ]
      : [
          [x - r, y - r],
          [x + r, y - r],
          [x + r, y + r],
          [x - r, y + r],
        ];
  };
  const byHand = (freely: boolean) => {
    setPicture("taken");
    setDrawn(freely);
    setMarks(freely || !placed ? inTheWay(freely) : placed);
  };
  const move = (i: number, to: [number, number]) =>
    setMarks(
      placed?.map((m, k) =>
        k === i
          ? [
              Math.max(0, Math.min(photo.width - 1, to[0])),
              Math.max(0, Math.min(photo.height - 1, to[1])),
            ]
          : m,
      ),
    );
  const at = (e: PointerEvent<SVGSVGElement>): [number, number] => {
    const box = e.currentTarget.getBoundingClientRect();
    return [
      ((e.clientX - box.left) / box.width) * photo.width,
      ((e.clientY - box.top) / box.height) * photo.height,
    ];
  };
  const nudge = (i: number) => (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      e.key
    ];
    const m = placed?.[i];
    if (!by || !m) return;
    e.preventDefault();
    e.stopPropagation();
    const step = e.shiftKey ? 10 : 1;
    move(i, [m[0] + by[0]! * step, m[1] + by[1]! * step]);
  };
  const spot = slot ? (spots[slot] ?? {}) : {};
  const setSpot = (next: Schemas["PhotoSpot"]) =>
    slot && setSpots({ ...spots, [slot]: { ...spot, ...next } });
  const good = read?.readings.filter((r) => !r.doubt).length ?? 0;
  return (
    <>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, alignItems: "center" }}>
        <Tabs label="picture" words={pictures} value={picture} onChoose={setPicture} />
        <Tap onClick={() => byHand(false)}>put the marks by hand</Tap>
        {sitting.plan.kind === "wheel" && (
          <Tap pressed={drawn} onClick={() => byHand(true)}>
            it was drawn freely
          </Tap>
        )}
        {marks && (
          <Tap
            onClick={() => {
              setMarks(undefined);
              setDrawn(false);
            }}
          >
            find the marks again
          </Tap>
        )}
      </Box>
      {got.error && <Typography role="alert">{got.error.message}</Typography>}
      {read?.refused && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {read.refused}
        </Typography>
      )}
      {read && !read.refused && (
        <Typography role="status">
          {good} of {read.readings.length} read, light of about {read.kelvin} K,{" "}
          {read.contrast.toFixed(1)} to 1 over the sheet
          {photo.standin && "; by the stand-in camera, rendered and not taken"}
          {read.does && (
            <Box component="span" sx={{ display: "block", fontWeight: 500 }}>
              {read.does}
            </Box>
          )}
        </Typography>
      )}
      <Box
        sx={{
          position: "relative",
          width: "fit-content",
          maxWidth: "100%",
          opacity: got.isPlaceholderData ? 0.7 : 1,
        }}
      >
        <Box
          component="img"
          key={shown}
          src={
            straight
              ? `${of}/straight?${new URLSearchParams({ even: String(shown === "even"), drawn: String(drawn), ...(marks && { marks: marks.flat().join(",") }) })}`
              : of
          }
          alt={straight ? `the sheet, ${pictures[shown]}` : "the photo of the sheet"}
          sx={{ display: "block", maxWidth: "100%", maxHeight: { md: "calc(100vh - 400px)" } }}
        />
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="group"
          aria-label="spots and marks"
          style={{
            position: "absolute",
            inset: 0,
            width: "100%",
            height: "100%",
            touchAction: "none",
          }}
          onPointerMove={(e) => drag !== null && move(drag, at(e))}
          onPointerUp={() => setDrag(null)}
          onPointerCancel={() => setDrag(null)}
        >
          {read?.readings.map((r) => (
            <path
              key={r.slot}
              role="button"
              tabIndex={0}
              aria-label={`${r.label}${r.doubt ? `: ${r.doubt}` : ""}`}
              aria-pressed={r.slot === slot}
              data-spot={r.slot}
              d={`M${(straight ? r.straight : r.outline).map((p) => p.join(" ")).join(" L")} Z`}
              fill="#fff"
              fillOpacity={0.001}
              stroke={r.slot === slot ? "#000" : "#fff"}
              strokeWidth={width / (r.slot === slot ? 250 : 500)}
              strokeDasharray={r.doubt ? `${width / 160}` : undefined}
              style={{ cursor: "pointer" }}
              onClick={() => setSlot(r.slot === slot ? undefined : r.slot)}
              onKeyDown={(e) => {
                if (e.key !== "Enter" && e.key !== " ") return;
                e.preventDefault();
                setSlot(r.slot === slot ? undefined : r.slot);
              }}
            />
          ))}
          {!straight &&
            placed?.map(([x, y], i) => (
              <g
                key={i}
                role="slider"
                tabIndex={0}
                aria-label={`mark ${(drawn ? quarters : corners)[i]}`}
                aria-valuenow={Math.round(x)}
                aria-valuetext={`${Math.round(x)}, ${Math.round(y)}`}
                transform={`translate(${x} ${y})`}
                style={{ cursor: "grab" }}
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  setDrag(i);
                }}
                onKeyDown={nudge(i)}
              >
                <circle
                  r={width / 45}
                  fill="#fff"
                  fillOpacity={0.25}
                  stroke="#000"
                  strokeWidth={width / 500}
                />
                <path
                  d={`M${-width / 45} 0 H${width / 45} M0 ${-width / 45} V${width / 45}`}
                  stroke="#000"
                  strokeWidth={width / 800}
                />
                <text
                  y={-width / 36}
                  textAnchor="middle"
                  fontSize={type(width / 60, width)}
                  fill="#000"
                  stroke="#fff"
                  strokeWidth={width / 300}
                  paintOrder="stroke"
                  aria-hidden
                >
                  {(drawn ? quarters : corners)[i]}
                </text>
              </g>
            ))}
        </svg>
      </Box>
      {slot && (
        <Box
          component="section"
          aria-label="the spot"
          sx={{ display: "flex", flexWrap: "wrap", alignItems: "center" }}
        >
          <Typography sx={{ mr: 2 }}>
            <b>{sitting.plan.regions.find((r) => r.id === slot)?.label}</b>{" "}
            <span style={{ fontFamily: figures }}>
              {read?.readings
                .find((r) => r.slot === slot)
                ?.lab.map((v) => v.toFixed(1))
                .join(" ")}
            </span>{" "}
            {read?.readings.find((r) => r.slot === slot)?.doubt}
          </Typography>
          {(
            [
              ["left", -1, 0],
              ["right", 1, 0],
              ["up", 0, -1],
              ["down", 0, 1],
            ] as const
          ).map(([word, dx, dy]) => (
            <Tap
              key={word}
              onClick={() => setSpot({ dx: (spot.dx ?? 0) + dx, dy: (spot.dy ?? 0) + dy })}
            >
              {word}
            </Tap>
          ))}
          <Tap pressed={spot.left} onClick={() => setSpot({ left: !spot.left })}>
            leave it out
          </Tap>
        </Box>
      )}
      {read && !read.refused && (
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, mt: 1 }}>
          <Button
            variant="contained"
            sx={{ minHeight: 56, flex: "none" }}
            onClick={() =>
              onKeep(
                read.readings.map(({ slot: of, asSeen, light, spread, doubt }) => ({
                  slot: of,
                  lab: asSeen,
                  spread,
                  doubt,
                  source: "photo",
                  wet,
                  onPhoto: { photo: photo.id, light, ink: read.ink, step: read.step, grey: step },
                })),
              )
            }
          >
            keep {read.readings.length} readings
          </Button>
          <Typography variant="caption" sx={{ color: greys.second, flex: "1 1 200px" }}>
            Dashed spots are doubted: kept, and left out of what is learned.
          </Typography>
          {read.step && !drawn && (
            <TextField
              size="small"
              label="L* of the grey dot"
              title="if you can measure it: the dot beside the lower left mark: what you measured it to be tells the photo better"
              value={measured}
              onChange={(e) => setMeasured(e.target.value)}
              error={measured !== "" && step === undefined}
              slotProps={{ htmlInput: { inputMode: "decimal" } }}
              sx={{ ml: "auto", width: 180, flex: "none" }}
            />
          )}
        </Box>
      )}
    </>
  );
}
