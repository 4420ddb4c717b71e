import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useNavigate } from "react-router";
import {
  answer,
  client,
  type Conditions,
  type Origin,
  type Preview,
  type Profile,
} from "../api/client";
import { previewQuery } from "../api/queries";
import { Shell } from "../app/Shell";
import { figures, grey, placeHeight } from "../drawing/style";
import { Setting } from "../parts/Choice";
import { Tabs } from "../parts/Tabs";
import { DrawDown } from "../drawing/DrawDown";
import { hidingWords } from "../drawing/Marks";
import { SpectrumPlot } from "../drawing/SpectrumPlot";
import { FromFile } from "./FromFile";
import { FromLabel } from "./FromLabel";
import { FromSwatches } from "./FromSwatches";
import { LikeAnother } from "./LikeAnother";
import { LeanLine, Looks } from "./TubeCard";
import { useView } from "../parts/useView";
import { familyWords } from "./words";

const ways = {
  swatches: "two swatches",
  file: "a spectral file",
  label: "from the label",
  like: "like another, but",
} as const;
type Way = keyof typeof ways;

/** A paint the library does not know, looked at before it is kept. */
export function OwnPage({ painter }: { painter: Profile }) {
  const { view, search, show } = useView();
  const way: Way = (search.get("way") ?? "") in ways ? (search.get("way") as Way) : "swatches";
  const [origins, setOrigins] = useState<Partial<Record<Way, Origin | null>>>({});
  const origin = origins[way] ?? null;
  const hear = (w: Way) => (o: Origin | null) =>
    setOrigins((now) =>
      JSON.stringify(now[w] ?? null) === JSON.stringify(o) ? now : { ...now, [w]: o },
    );
  const forms: Record<Way, React.ReactNode> = {
    swatches: <FromSwatches view={view} onOrigin={hear("swatches")} />,
    file: <FromFile view={view} onOrigin={hear("file")} />,
    label: <FromLabel view={view} onOrigin={hear("label")} />,
    like: <LikeAnother view={view} onOrigin={hear("like")} />,
  };
  return (
    <Shell painter={painter} title="Make a paint" viewed={{ view: view, onSet: (v) => show(v) }}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 348px" },
          columnGap: 3,
        }}
      >
        <Box sx={{ height: { md: placeHeight }, overflowY: { md: "auto" }, pr: 1 }}>
          <Typography variant="h2">A paint of your own</Typography>
          <Box sx={{ mb: 1.5 }}>
            <Tabs
              label="the way to make it"
              words={ways}
              value={way}
              onChoose={(w) => show({ way: w })}
            />
          </Box>
          {(Object.keys(ways) as Way[]).map((w) => (
            <Box key={w} hidden={w !== way}>
              {forms[w]}
            </Box>
          ))}
        </Box>
        <Box
          sx={{
            borderLeft: { md: `1px solid ${grey.hairline}` },
            pl: { md: 2 },
            pt: { xs: 2, md: 0 },
            height: { md: placeHeight },
            overflowY: { md: "auto" },
          }}
        >
          <Preview key={way} view={view} origin={origin} />
        </Box>
      </Box>
    </Shell>
  );
}

function Preview({ view, origin }: { view: Conditions; origin: Origin | null }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [grade, setGrade] = useState<"artist" | "student">("artist");
  const asked = useDeferredValue(origin);
  const preview = useQuery(previewQuery(view, asked, ""));
  const keep = useMutation({
    mutationFn: (o: Origin) =>
      answer(
        client.POST("/api/own", { params: { query: view }, body: { name, grade, origin: o } }),
      ),
    onSuccess: (box) => {
      void queries.invalidateQueries({ queryKey: ["box"] });
      const newest = [...box.tubes].sort((a, b) => b.id - a.id)[0];
      void navigate(newest ? `/box?tube=${newest.id}` : "/box");
    },
  });
  const got = origin && !preview.error ? preview.data : undefined;
  const p = got?.paint;
  return (
    <Box
      component="section"
      aria-label="preview"
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Typography variant="caption">{p ? p.madeWords : "preview"}</Typography>
      {preview.error && origin && (
        <Typography
          role="alert"
          sx={{ fontWeight: 500, borderLeft: `3px solid ${grey.ink}`, pl: 1 }}
        >
          {preview.error.message}
        </Typography>
      )}
      {!p && !preview.error && (
        <Typography sx={{ color: grey.second }}>
          What you give on the left is worked out here and shown before anything is kept.
        </Typography>
      )}
      {p && (
        <>
          <Box sx={{ display: "flex", gap: 2 }}>
            <DrawDown paint={p} width={96} height={150} />
            <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", gap: 1 }}>
              <Typography variant="h3">{p.verdict === "neutral" ? "no hue" : p.hueWord}</Typography>
              <Typography variant="body2">
                among the {familyWords[p.family]}; strength {p.strength} of 5,{" "}
                {hidingWords[p.hiding]}
              </Typography>
              <LeanLine tube={{ paint: p }} />
            </Box>
          </Box>
          <Looks tube={{ paint: p }} height={44} />
          {(got.fit ?? origin?.kind === "label") && <FitLine fit={got.fit ?? null} />}
          {(got.shares?.length ?? 0) > 0 && <Shares shares={got.shares} />}
          <SpectrumPlot paints={[p]} height={88} />
          <Typography
            variant="body2"
            sx={{ borderLeft: `3px solid ${p.cautious ? grey.ink : grey.hairline}`, pl: 1 }}
          >
            {p.caution}
          </Typography>
          <Box
            component="form"
            onSubmit={(e) => {
              e.preventDefault();
              if (origin) keep.mutate(origin);
            }}
            sx={{
              display: "flex",
              flexDirection: "column",
              gap: 1,
              borderTop: `1px solid ${grey.hairline}`,
              pt: 1.5,
            }}
          >
            <TextField
              size="small"
              label="name of the paint"
              value={name}
              onChange={(e) => setName(e.target.value)}
              slotProps={{ htmlInput: { maxLength: 80, autoComplete: "off" } }}
            />
            <Box
              sx={{
                display: "flex",
                alignItems: "center",
                gap: 2,
                justifyContent: "space-between",
              }}
            >
              {origin?.kind === "label" ? (
                <Setting
                  label="grade"
                  words={{ artist: "artist", student: "student" }}
                  value={grade}
                  onChoose={setGrade}
                />
              ) : (
                <span />
              )}
              <Button
                type="submit"
                variant="contained"
                size="large"
                disabled={name.trim() === "" || keep.isPending}
              >
                keep it in my box
              </Button>
            </Box>
            {keep.error && (
              <Typography role="alert" sx={{ fontWeight: 500 }}>
                {keep.error.message}
              </Typography>
            )}
          </Box>
        </>
      )}
    </Box>
  );
}

/** How far the paint, laid out again, is from what was given. */
function FitLine({ fit }: { fit: Preview["fit"] }) {
  if (!fit) return <Typography variant="body2">Nothing was given to check it against.</Typography>;
  const number = (v: number) => (
    <Box component="span" sx={{ fontFamily: figures, fontWeight: 700 }}>
      {v.toFixed(1)}
    </Box>
  );
  return (
    <Typography variant="body2" aria-label="fit">
      Laid out again it misses the masstone by {number(fit.mass ?? 0)}
      {fit.tint !== null && <> and the tint by {number(fit.tint)}</>} (CIEDE2000): {fit.words}.
    </Typography>
  );
}

function Shares({ shares }: { shares: { paint: string; name: string; share: number }[] }) {
  return (
    <Box aria-label="shares">
      <Box sx={{ display: "flex", gap: "2px", height: 10 }}>
        {shares.map((s) => (
          <Box key={s.paint} sx={{ flex: `${s.share} 0 2px`, bgcolor: grey.mark }} />
        ))}
      </Box>
      {shares.map((s) => (
        <Typography key={s.paint} variant="body2">
          <Box component="span" sx={{ fontFamily: figures, display: "inline-block", width: 48 }}>
            {(100 * s.share).toFixed(s.share < 0.1 ? 1 : 0)} %
          </Box>
          {s.paint} {s.name}
        </Typography>
      ))}
    </Box>
  );
}
