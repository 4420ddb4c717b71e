import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { answer, client, sendFile, type Conditions, type Schemas } from "../api/client";
import { boxQuery, wantedQuery } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { colourInAddress, type Read } from "../parts/colour";
import { ColourField } from "../parts/ColourField";
import { FileButton } from "../parts/FileButton";
import { inParts, nameOf } from "../parts/naming";
import { MeterReadings } from "../parts/MeterReadings";
import { PhotoSpots } from "../parts/PhotoSpots";
import { figures, grey } from "../drawing/style";
import { wantedChanged } from "../parts/WantIt";
import { InMeasure } from "../parts/InMeasure";
import { HowToMix, PartsBar } from "../parts/Recipe";
import { useColours } from "../drawing/screen";
import { Tick } from "../parts/Tick";
import { HeldBeside } from "./HeldBeside";
import { Swatch } from "../drawing/Swatch";
import { LineMark } from "./Marks";

/** The colours that the pictures need: left as wanted, right the nearest each system comes. */
export function WantedStrip({
  wheels,
  view,
  names,
}: {
  wheels: number[];
  view: Conditions;
  names: string[];
}) {
  const queries = useQueryClient();
  const question = wantedQuery(wheels, view);
  const got = useQuery(question);
  const [opened, setOpened] = useState<[number, number] | null>(null);
  const [adding, setAdding] = useState(false);
  const [asListed, setAsListed] = useState(false);
  const again = () => wantedChanged(queries);
  const unwant = useMutation({
    mutationFn: (id: number) =>
      answer(client.DELETE("/api/wanted/{id}", { params: { path: { id } } })),
    onSettled: again,
  });
  const list = asListed ? (got.data ?? []) : [...(got.data ?? [])].sort((a, b) => b.most - a.most);
  const shown = opened && list.find((w) => w.id === opened[0]);
  const match = shown?.matches[opened![1]];
  return (
    <Box
      component="section"
      aria-label="wanted colours"
      sx={{ borderTop: `2px solid ${grey.ink}`, mt: 2, pt: 1 }}
    >
      <Box sx={{ display: "flex", alignItems: "baseline", flexWrap: "wrap", columnGap: 2 }}>
        <Typography variant="h3">Wanted</Typography>
        <Typography variant="caption" sx={{ flex: 1 }}>
          left as wanted, right the nearest each system comes; CIEDE2000, below 1 nobody sees it,
          the best is underlined
        </Typography>
        {list.length > 1 && (
          <Tick words="worst first" on={!asListed} onSet={(on) => setAsListed(!on)} />
        )}
        {list.length > 0 && (
          <Button
            size="small"
            color="inherit"
            component="a"
            href={`/api/wanted/export?${new URLSearchParams({ wheels: wheels.join(","), ...view })}`}
            download
          >
            recipes (CSV)
          </Button>
        )}
        <Button
          size="small"
          color="inherit"
          aria-expanded={adding}
          onClick={() => setAdding(!adding)}
        >
          {adding ? "done" : "want another"}
        </Button>
      </Box>
      {adding && <Another view={view} onAdded={again} />}
      {got.error && <Typography role="alert">{got.error.message}</Typography>}
      {unwant.error && <Typography role="alert">{unwant.error.message}</Typography>}
      {got.data?.length === 0 && (
        <Typography sx={{ color: grey.second, mt: 1 }}>
          No colour is wanted yet. Want some, and each system shows how near it comes and with which
          parts.
        </Typography>
      )}
      <Box
        sx={{
          display: "flex",
          gap: 1.5,
          overflowX: "auto",
          pb: 1,
          mt: 0.5,
          minHeight: got.isPending ? 46 + 44 * wheels.length : 0, // the room it will take
          opacity: got.isPlaceholderData ? 0.5 : 1,
        }}
      >
        {list.length > 0 && (
          <Box sx={{ flex: "none", display: "flex", flexDirection: "column", pt: "38px" }}>
            {names.map((n, i) => (
              <Box key={i} sx={{ height: 44, display: "flex", alignItems: "center" }} title={n}>
                <LineMark index={i} />
              </Box>
            ))}
          </Box>
        )}
        {list.map((w) => (
          <Box
            key={w.id}
            role="group"
            aria-label={w.name || "a wanted colour"}
            sx={{ flex: "1 0 116px", maxWidth: 170 }}
          >
            <Typography variant="body2" sx={{ fontWeight: 500, height: 36, overflow: "hidden" }}>
              {w.name || w.want.words}
            </Typography>
            <Box sx={{ display: "grid", gridTemplateColumns: "34px 34px minmax(0, 1fr)" }}>
              {w.matches.map((m, i) => (
                <Match
                  key={i}
                  want={w.want}
                  match={m}
                  best={m.de00 === w.least}
                  open={opened?.[0] === w.id && opened[1] === i}
                  name={`${w.name || w.want.words} from ${names[i]}`}
                  onOpen={() =>
                    setOpened(opened?.[0] === w.id && opened[1] === i ? null : [w.id, i])
                  }
                />
              ))}
            </Box>
          </Box>
        ))}
      </Box>
      {shown && match && (
        <Box
          aria-label="recipe"
          sx={{
            display: "grid",
            gridTemplateColumns: {
              xs: "minmax(0, 1fr)",
              md: "200px minmax(0, 1fr) minmax(0, 1fr)",
            },
            gap: 3,
            borderTop: `1px solid ${grey.hairline}`,
            py: 1.5,
          }}
        >
          <Box>
            <Box sx={{ display: "flex" }}>
              <Swatch colour={shown.want} plain height={84} />
              <Swatch colour={match.shown} plain height={84} />
            </Box>
            <Box sx={{ display: "flex", justifyContent: "space-between" }}>
              <Typography variant="caption">as wanted</Typography>
              <Typography variant="caption">the nearest</Typography>
            </Box>
          </Box>
          <Box sx={{ display: "flex", flexDirection: "column", gap: 1 }}>
            <Typography sx={{ display: "flex", alignItems: "center", gap: 1, fontWeight: 600 }}>
              <LineMark index={opened[1]} /> {shown.name || shown.want.words} from{" "}
              {names[opened[1]]}
            </Typography>
            <Typography variant="body2">{match.says}</Typography>
            <InMeasure parts={match.recipe} view={view}>
              <PartsBar parts={match.recipe} />
            </InMeasure>
          </Box>
          <Box sx={{ display: "flex", flexDirection: "column", gap: 1, alignItems: "flex-start" }}>
            <HowToMix steps={match.mixing} />
            <Typography variant="caption" sx={{ fontFamily: figures }}>
              CIEDE2000 {match.de00.toFixed(1)}, {match.lampSays}
            </Typography>
            <Button
              size="small"
              color="inherit"
              onClick={() => unwant.mutate(shown.id)}
              sx={{ px: 0 }}
            >
              no longer wanted
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Match({
  want,
  match,
  best,
  open,
  name,
  onOpen,
}: {
  want: Schemas["Aimed"];
  match: Schemas["Matched"];
  best: boolean;
  open: boolean;
  name: string;
  onOpen: () => void;
}) {
  const { fill } = useColours();
  return (
    <Box
      component="button"
      aria-expanded={open}
      aria-label={`${name}: CIEDE2000 ${match.de00.toFixed(1)}, ${inParts(match.recipe)}`}
      onClick={onOpen}
      sx={{
        gridColumn: "1 / -1",
        display: "grid",
        gridTemplateColumns: "subgrid",
        height: 44,
        p: 0,
        border: 0,
        outline: open ? `2px solid ${grey.ink}` : "none",
        bgcolor: "transparent",
        color: grey.ink,
        font: "inherit",
        cursor: "pointer",
      }}
    >
      <svg width="100%" height={44} aria-hidden>
        <rect width="100%" height={44} fill={fill(want)} />
      </svg>
      <svg width="100%" height={44} aria-hidden>
        <rect width="100%" height={44} fill={fill(match.shown)} />
      </svg>
      <Box component="span" sx={{ pl: 0.75, textAlign: "left", alignSelf: "center" }}>
        <Box
          component="span"
          sx={{
            fontFamily: figures,
            fontSize: 12,
            fontWeight: best ? 700 : 400,
            borderBottom: best ? `2px solid ${grey.ink}` : 0,
          }}
        >
          {match.de00.toFixed(1)}
        </Box>
        <Box
          component="span"
          sx={{ display: "flex", height: 6, mt: 0.5, border: `1px solid ${grey.mark}` }}
        >
          {match.recipe.map((p, i) => (
            <Box key={i} component="span" sx={{ flex: p.parts, bgcolor: fill(p), minWidth: 2 }} />
          ))}
        </Box>
      </Box>
    </Box>
  );
}

const froms = {
  beside: "I hold it beside",
  photo: "from a photo",
  meter: "with the meter",
} as const;

/** More colours: typed, those of a tube, or out of a file. */
function Another({ view, onAdded }: { view: Conditions; onAdded: () => void }) {
  const { fill } = useColours();
  const [name, setName] = useState("");
  const [look, setLook] = useState("");
  const [from, setFrom] = useState<keyof typeof froms | null>(null);
  const [metered, setMetered] = useState<{ mass?: Read }>({});
  const colour = colourInAddress(look);
  const hear = useCallback((p: { mass?: Read }) => {
    setMetered(p);
    if (p.mass) setLook(p.mass.colour.lab.map((v) => v.toFixed(1)).join(" "));
  }, []);
  const surface = { medium: view.medium, judged: "dry" } as const;
  const box = useQuery(boxQuery({ ...view, light: "D65", judged: "dry" }));
  const tubes = box.data?.tubes ?? [];
  const add = useMutation({
    mutationFn: (more: Schemas["Wanted"][]) => answer(client.POST("/api/wanted", { body: more })),
    onSuccess: () => {
      setName("");
      setLook("");
      read.reset();
      onAdded();
    },
  });
  const read = useMutation({
    mutationFn: (f: File) => sendFile<Schemas["WantedRow"][]>("wanted", f),
  });
  const rows = read.data ?? [];
  const good = rows.filter((r) => !r.problem);
  return (
    <Box sx={{ mt: 1 }}>
      <Box
        component="form"
        onSubmit={(e) => {
          e.preventDefault();
          if (colour) add.mutate([{ name: name.trim(), colour }]);
        }}
        sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "flex-start" }}
      >
        <TextField
          size="small"
          label="what it is for"
          value={name}
          onChange={(e) => setName(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 80, autoComplete: "off" } }}
        />
        <Box sx={{ width: 260 }}>
          <ColourField
            label="wanted colour: CIELAB or #hex"
            text={look}
            onText={setLook}
            ok={colour !== ""}
          />
        </Box>
        <Button
          type="submit"
          variant="outlined"
          color="inherit"
          disabled={!colour || add.isPending}
          sx={{ height: 40 }}
        >
          want it
        </Button>
        <OneOf
          label="the colour of a tube"
          shown="the colour of a tube"
          of={tubes.map((t) => ({ value: t.paint.id, name: nameOf(t) }))}
          value=""
          onChoose={(ref) => {
            const t = tubes.find((x) => x.paint.id === ref)!;
            setName(nameOf(t));
            setLook(t.paint.asPainted.lab.map((v) => v.toFixed(1)).join(" "));
          }}
        />
        {(Object.keys(froms) as (keyof typeof froms)[]).map((how) => (
          <Button
            key={how}
            color="inherit"
            aria-expanded={from === how}
            onClick={() => setFrom(from === how ? null : how)}
            sx={{ height: 40 }}
          >
            {froms[how]}
          </Button>
        ))}
        <FileButton
          label="out of a file"
          accept=".gpl,.csv,.txt,text/csv"
          onFile={(f) => read.mutate(f)}
        />
      </Box>
      {from === "beside" && (
        <HeldBeside
          tubes={tubes}
          typed={colour}
          onFound={(found) => {
            setLook(found);
            setFrom(null);
          }}
        />
      )}
      {from === "photo" && (
        <PhotoSpots surface={surface} reads={{ mass: "wanted colour" }} onPicked={hear} />
      )}
      {from === "meter" && (
        <MeterReadings
          surface={surface}
          reads={{ mass: "wanted colour" }}
          read={metered}
          onRead={hear}
        />
      )}
      {(add.error ?? read.error) && (
        <Typography role="alert" sx={{ mt: 0.5 }}>
          {(add.error ?? read.error)?.message}
        </Typography>
      )}
      {rows.length > 0 && (
        <Box aria-label="colours of the file" sx={{ mt: 1 }}>
          {rows.slice(0, 40).map((r) => (
            <Box
              key={r.line}
              sx={{
                display: "flex",
                gap: 1,
                alignItems: "center",
                minHeight: 26,
                borderTop: `1px solid ${grey.hairline}`,
              }}
            >
              <svg width={36} height={20} aria-hidden>
                {r.shown && <rect width={36} height={20} fill={fill(r.shown)} />}
              </svg>
              <Typography variant="body2">
                line {r.line}: {r.name || r.colour} {r.problem && <b>{r.problem}</b>}
              </Typography>
            </Box>
          ))}
          {rows.length > 40 && (
            <Typography variant="caption">and {rows.length - 40} more</Typography>
          )}
          <Button
            variant="outlined"
            color="inherit"
            disabled={good.length === 0 || add.isPending}
            onClick={() => add.mutate(good.map((r) => ({ name: r.name, colour: r.colour ?? "" })))}
            sx={{ mt: 1 }}
          >
            want{" "}
            {good.length === rows.length
              ? `all ${good.length}`
              : `the ${good.length} that can be read`}
          </Button>
        </Box>
      )}
    </Box>
  );
}
