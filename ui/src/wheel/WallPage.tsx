import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useState, type PointerEvent } from "react";
import { Link as To, useNavigate, useParams } from "react-router";
import type { KeptWheel, Slot, Wheel } from "../api/client";
import { keptQuery, pairQuery, wheelQuery, wheelsQuery } from "../api/queries";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { Swatch } from "../drawing/Swatch";
import { grey } from "../drawing/style";
import { Choice } from "../parts/Choice";
import { nearest } from "../parts/nearest";
import { useDarkRoom } from "../parts/darkRoom";
import { OnTheWall } from "../parts/OnTheWall";
import { useWallKeys } from "../parts/useWallKeys";
import { Waiting } from "../parts/Waiting";
import { partsInWords } from "./words";
import { WheelFigure } from "./WheelFigure";

/** What lies under a cover. */
const mixed = (s: Slot) => !s.empty && s.kind !== "primary";

/** One wheel on the wall, or two side by side: covers lifted slot by slot, a path dragged before a class. */
export function WallPage() {
  const { id, other } = useParams();
  useDarkRoom();
  const ids = [Number(id), ...(other ? [Number(other)] : [])];
  return <Wall key={ids.join(" ")} ids={ids} />;
}

function Wall({ ids }: { ids: number[] }) {
  const navigate = useNavigate();
  const wheels = useQuery(wheelsQuery);
  const [lifted, setLifted] = useState<number[]>([]);
  const [chosen, setChosen] = useState(0);
  const [along, setAlong] = useState(false);
  const kept = useQueries({ queries: ids.map(keptQuery) });
  const built = useQueries({
    queries: kept.flatMap(({ data: w }) => (w ? [wheelQuery(w.id, w.system, w.settings)] : [])),
  });
  // The covers, as they are lifted: clockwise from the first role.
  const order = [
    ...new Set(built.flatMap((w) => w.data?.slots.filter(mixed).map((s) => s.home) ?? [])),
  ].sort((a, b) => a - b);
  const next = order.find((home) => !lifted.includes(home));
  const lift = (home: number) => {
    setChosen(home);
    if (order.includes(home) && !lifted.includes(home)) setLifted([...lifted, home]);
  };
  const onward = () => next !== undefined && lift(next);
  const back = () => {
    setLifted(lifted.slice(0, -1));
    setChosen(lifted.at(-2) ?? 0);
  };
  useWallKeys(true, {
    onward,
    back,
    others: {
      a: () => setLifted(order),
      c: () => setLifted([]),
      p: () => setAlong(!along),
    },
  });
  return (
    <OnTheWall
      title={ids.length === 1 ? "a wheel on the wall" : "two wheels on the wall"}
      keys="space, page keys or a clicker: lift and cover · a: all · c: cover all · p: path · v: squint"
      deeds={
        <>
          {next !== undefined || order.length === 0 ? (
            <Button variant="contained" size="large" disabled={next === undefined} onClick={onward}>
              lift the next
            </Button>
          ) : (
            <Button variant="contained" size="large" onClick={() => setLifted([])}>
              cover all again
            </Button>
          )}
          <Button color="inherit" disabled={lifted.length === 0} onClick={back}>
            cover the last again
          </Button>
          <Button color="inherit" aria-pressed={along} onClick={() => setAlong(!along)}>
            {along ? "without the path" : "drag along the path"}
          </Button>
          <Choice label="beside it" bold={false} shown="beside it">
            {(close) => [
              ...(wheels.data ?? [])
                .filter((w) => !w.archived && w.id !== ids[0])
                .map((w) => (
                  <MenuItem
                    key={w.id}
                    selected={w.id === ids[1]}
                    onClick={() => {
                      close();
                      void navigate(`/wall/${ids[0]}/${w.id}`, { replace: true });
                    }}
                  >
                    {w.name}
                  </MenuItem>
                )),
              <MenuItem
                key="none"
                onClick={() => {
                  close();
                  void navigate(`/wall/${ids[0]}`, { replace: true });
                }}
              >
                nothing
              </MenuItem>,
            ]}
          </Choice>
          <Button color="inherit" component={To} to={`/wheel/${ids[0]}`}>
            leave the wall
          </Button>
        </>
      }
    >
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            md: `repeat(${ids.length}, minmax(0, 1fr))`,
          },
          gap: 3,
        }}
      >
        {ids.map((id) => (
          <One
            key={id}
            id={id}
            lifted={lifted}
            chosen={chosen}
            along={along}
            alone={ids.length === 1}
            onLift={lift}
            onChoose={setChosen}
          />
        ))}
      </Box>
    </OnTheWall>
  );
}

type Standing = {
  lifted: number[];
  /** Homes: where slots stand clockwise with the first role on top. */
  chosen: number;
  along: boolean;
  /** No other stands beside it. */
  alone: boolean;
  onLift: (home: number) => void;
  onChoose: (home: number) => void;
};

function One({ id, ...standing }: Standing & { id: number }) {
  const kept = useQuery(keptQuery(id));
  if (kept.error)
    return (
      <Typography role="alert" sx={{ fontSize: 22 }}>
        {kept.error.message}
      </Typography>
    );
  if (!kept.data) return <Waiting failing={kept.failureCount > 0} />;
  return <Standing kept={kept.data} {...standing} />;
}

function Standing({
  kept,
  lifted,
  chosen,
  along,
  alone,
  onLift,
  onChoose,
}: Standing & { kept: KeptWheel }) {
  const wheel = useQuery(wheelQuery(kept.id, kept.system, kept.settings));
  if (!wheel.data) return <Waiting failing={wheel.failureCount > 0} />;
  const slots = wheel.data.slots;
  const covered = new Set(
    slots.filter((s) => mixed(s) && !lifted.includes(s.home)).map((s) => s.index),
  );
  const at = slots.find((s) => s.home === chosen)!;
  const n = slots.length;
  const open = !covered.has(at.index);
  return (
    <Box component="section" aria-label={kept.name}>
      <Typography variant="h2" sx={{ overflowWrap: "anywhere" }}>
        {kept.name}
      </Typography>
      <Typography role="status" sx={{ fontSize: 19, lineHeight: "27px", minHeight: 54 }}>
        {at.empty ? (
          `${at.name}: nothing stands here`
        ) : open ? (
          <>
            <b>{at.name}</b>: {partsInWords(at.parts)}
            {at.kind !== "primary" && <>, {at.verdictWords}</>}
          </>
        ) : (
          `${at.name}: covered`
        )}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            md: `repeat(${along && alone ? 2 : 1}, minmax(0, 1fr))`,
          },
          alignItems: "center",
          gap: along && alone ? 4 : 0,
        }}
      >
        <WheelFigure
          wheel={wheel.data}
          chosen={at.index}
          covered={covered}
          below={along && !alone ? 320 : 60}
          onChoose={(index) => onLift(slots[index]!.home)}
          onWalk={(by) => onChoose(slots[(at.index + by + n) % n]!.home)}
          onOpen={() => onLift(at.home)}
        />
        {along && (
          <Along
            kept={kept}
            wheel={wheel.data}
            section={Math.floor(chosen / 4)}
            high={alone ? 220 : 64}
          />
        )}
      </Box>
    </Box>
  );
}

/** The path of a section: dragged along, it shows what is mixed there. */
function Along({
  kept,
  wheel,
  section,
  high,
}: {
  kept: KeptWheel;
  wheel: Wheel;
  section: number;
  /** The colour, px. */
  high: number;
}) {
  const of = wheel.sections[section]!;
  const [at, setAt] = useState(0.5);
  const pair = useQuery({
    ...pairQuery({ a: of.from, b: of.to, wheel: kept.id, steps: 3 }, kept.settings),
    enabled: !!of.from && !!of.to,
  });
  if (!of.from || !of.to)
    return <Typography>No paints stand at both ends of this path.</Typography>;
  if (!pair.data) return <Waiting failing={pair.failureCount > 0} />;
  const samples = pair.data.samples;
  const here = samples[nearest(pair.data, at)]!;
  const place = (e: PointerEvent<HTMLDivElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    setAt(Math.max(0, Math.min(1, (e.clientX - box.left) / box.width)));
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Swatch colour={here.asPainted} height={high} />
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, my: 1, minHeight: 52 }}>
        <Drop verdict={here.verdict} height={30} />
        <Typography role="status" sx={{ fontSize: 19, lineHeight: "26px" }}>
          {partsInWords(here.parts)}: {here.verdictWords}
        </Typography>
      </Box>
      <Box
        role="slider"
        tabIndex={0}
        aria-label={`along the path from ${pair.data.a.name} to ${pair.data.b.name}`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(100 * at)}
        aria-valuetext={partsInWords(here.parts)}
        onKeyDown={(e) => {
          const by = ({ ArrowRight: 0.02, ArrowLeft: -0.02 } as Record<string, number>)[e.key];
          if (!by) return;
          e.preventDefault();
          e.stopPropagation();
          setAt(Math.max(0, Math.min(1, at + by)));
        }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          place(e);
        }}
        onPointerMove={(e) => {
          if (e.currentTarget.hasPointerCapture(e.pointerId)) place(e);
        }}
        sx={{ position: "relative", touchAction: "none", cursor: "ew-resize" }}
      >
        <Ribbon band={samples} height={84} />
        <Box
          aria-hidden
          sx={{
            position: "absolute",
            top: -6,
            bottom: 0,
            left: `calc(${100 * here.at}% - 1.5px)`,
            width: "3px",
            bgcolor: grey.ink,
          }}
        />
      </Box>
    </Box>
  );
}
