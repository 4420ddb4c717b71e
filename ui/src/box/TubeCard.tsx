import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { useId, useState, type ReactNode } from "react";
import type { Conditions, KeptTube, TubeContent } from "../api/client";
import { leanWords, nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { WantIt } from "../parts/WantIt";
import { Value } from "../parts/Value";
import { Setting } from "../parts/Choice";
import { hidingWords, LeanMark, Drop } from "../drawing/Marks";
import { SpectrumPlot } from "../drawing/SpectrumPlot";
import { Ladder } from "../drawing/Ladder";
import { Swatch } from "../drawing/Swatch";
import { NotSure } from "./NotSure";

/** All that is known of one tube, and what its painter says of it. */
export function TubeCard({
  tube,
  view,
  cautionNotice,
  onChange,
  onBeside,
  onSettle,
}: {
  tube: KeptTube;
  view: Conditions;
  cautionNotice: string;
  onChange: (content: Partial<TubeContent>) => void;
  onBeside: () => void;
  onSettle: (paints: string[]) => void;
}) {
  const p = tube.paint;
  const c = tube.content;
  return (
    <Box
      component="section"
      aria-label={`paint: ${nameOf(tube)}`}
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <Box>
        <Typography variant="caption" component="p">
          {p.madeWords}
        </Typography>
        <Said
          label="nickname"
          value={c.nickname}
          usual={p.name}
          maxLength={80}
          big
          onSay={(nickname) => onChange({ nickname })}
        />
        <Box
          sx={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", gap: 1 }}
        >
          <Typography sx={{ color: grey.second }}>
            <Box component="span" sx={{ fontFamily: figures, fontSize: 13 }}>
              {p.ci || "no pigment code"}
            </Box>{" "}
            {c.nickname && `${p.name}, `}
            {p.words} · <Value of={p.masstone} />
          </Typography>
          <WantIt key={tube.id} name={nameOf(tube)} lab={p.asPainted.lab} seen={view} />
        </Box>
      </Box>
      <NotSure tube={tube} onSure={() => onChange({ notSure: "" })} onSettle={onSettle} />
      <LeanLine tube={tube} />
      <Looks tube={tube} />
      <Typography>
        {p.because}{" "}
        {p.printBecause && (
          <Box component="span" sx={{ color: grey.second }}>
            {p.printBecause}
          </Box>
        )}
      </Typography>
      <Facts tube={tube} />
      <Typography
        variant="body2"
        sx={{ borderLeft: `3px solid ${p.cautious ? grey.ink : grey.hairline}`, pl: 1 }}
        title={cautionNotice}
      >
        {p.caution}{" "}
        <Box component="span" sx={{ color: grey.third }}>
          Your tube’s own label and safety data sheet come first.
        </Box>
      </Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "auto 1fr 1fr",
          columnGap: 2,
          alignItems: "end",
          borderTop: `1px solid ${grey.hairline}`,
          pt: 0.5,
        }}
      >
        <Box>
          <Typography variant="caption">grade</Typography>
          <Setting
            label="grade"
            words={{ artist: "artist", student: "student" }}
            value={c.grade}
            onChoose={(grade) => onChange({ grade })}
          />
        </Box>
        <Figure label="tube, ml" value={c.tubeMl} onSay={(tubeMl) => onChange({ tubeMl })} />
        <Figure label="price" value={c.price} onSay={(price) => onChange({ price })} />
      </Box>
      <Said
        label="note"
        value={c.note}
        usual="a note of your own"
        maxLength={1000}
        onSay={(note) => onChange({ note })}
      />
      <Box>
        <Typography variant="caption" component="p">
          reflectance: masstone heavy, tint of 1 in 9 white light
        </Typography>
        <SpectrumPlot paints={[p]} height={84} />
      </Box>
      <Box
        sx={{
          display: "flex",
          gap: 1,
          py: 1,
          position: "sticky",
          bottom: 0,
          bgcolor: grey.paper,
          borderTop: `1px solid ${grey.hairline}`,
        }}
      >
        <Button variant="outlined" onClick={onBeside} disabled={c.archived}>
          hold another beside it
        </Button>
        <Button color="inherit" onClick={() => onChange({ archived: !c.archived })}>
          {c.archived ? "back into the box" : "archive"}
        </Button>
      </Box>
    </Box>
  );
}

export function LeanLine({ tube }: { tube: Pick<KeptTube, "paint"> }) {
  const p = tube.paint;
  if (!p.lean) {
    return <Typography variant="subtitle2">No hue of its own, so nowhere to lean.</Typography>;
  }
  const more = [p.temperature, p.relative].filter(Boolean);
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
      <Box sx={{ pt: 0.5, flex: "none" }}>
        <LeanMark lean={p.lean} />
      </Box>
      <Box>
        <Typography variant="subtitle2">
          {p.lean.toward === "centred"
            ? `centred (${p.lean.degrees.toFixed(0)}°)`
            : `leans ${leanWords(p.lean)}`}
          {more.length > 0 && (
            <Box component="span" sx={{ fontWeight: 400 }}>
              , {more.join(", ")}
            </Box>
          )}
        </Typography>
        {(p.lean.inMass || p.lean.inWash) && (
          <Typography variant="body2">
            {[
              p.lean.inMass && `straight from the tube: to ${p.lean.inMass}`,
              p.lean.inWash && `in a wash: to ${p.lean.inWash}`,
            ]
              .filter(Boolean)
              .join("; ")}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

/** Masstone, as painted, and what lies under it. */
export function Looks({
  tube,
  height = 54,
  brief = false,
}: {
  tube: Pick<KeptTube, "paint">;
  height?: number;
  brief?: boolean;
}) {
  const p = tube.paint;
  const looks = [
    { label: "masstone", colour: p.masstone },
    ...(brief ? [] : [{ label: "brushed out", colour: p.brushedOut }]),
    { label: brief ? "undertone" : "undertone in white", colour: p.undertone },
  ];
  return (
    <Box>
      <Box sx={{ display: "flex" }}>
        {looks.map((l) => (
          <Box key={l.label} sx={{ flex: 1, minWidth: 0 }}>
            <Swatch colour={l.colour} height={height} />
            <Typography
              variant="caption"
              sx={{ display: "block", overflow: "hidden", whiteSpace: "nowrap" }}
            >
              {l.label}
            </Typography>
          </Box>
        ))}
      </Box>
      <Box sx={{ mt: 0.25 }}>
        <Ladder rungs={p.ladder} height={22} />
      </Box>
    </Box>
  );
}

function Facts({ tube }: { tube: KeptTube }) {
  const p = tube.paint;
  const facts: [string, ReactNode][] = [
    [
      "strength",
      <>
        {p.strength} of 5
        {tube.learned
          ? `, ${p.g.toFixed(2)} times the modelled, as you painted it`
          : tube.content.grade === "student" && ", at half strength"}
      </>,
    ],
    ["hiding", hidingWords[p.hiding]],
    [
      "staining",
      p.staining ? (
        <>
          {p.staining}
          <Typical />
        </>
      ) : (
        "not known"
      ),
    ],
    [
      "lightfastness",
      p.lightfast ? (
        <>
          {p.lightfastRating ? `${p.lightfastRating}, ${p.lightfast}` : p.lightfast}
          <Typical />
        </>
      ) : (
        "not known"
      ),
    ],
    ["hue error", p.hueError?.toFixed(2) ?? "does not apply"],
    ["greyness", p.greyness?.toFixed(2) ?? "does not apply"],
  ];
  return (
    <Box>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, mb: 0.5 }}>
        <Drop verdict={p.verdict} height={20} />
        <Typography sx={{ fontWeight: 600, fontSize: 15 }}>
          {p.verdict === "neutral" ? "neutral: no brightness to keep" : p.verdictWords}
        </Typography>
        {p.verdict !== "neutral" && (
          <Typography variant="caption" sx={{ fontFamily: figures }}>
            undertone, {p.retention.toFixed(2)} of the possible
          </Typography>
        )}
      </Box>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: "grid",
          gridTemplateColumns: "auto 1fr auto 1fr",
          columnGap: 1.25,
          rowGap: 0.25,
          fontSize: 13,
          lineHeight: "18px",
          "& dt": { color: grey.third },
          "& dd": { m: 0 },
        }}
      >
        {facts.map(([term, value]) => (
          <Box key={term} sx={{ display: "contents" }}>
            <dt>{term}</dt>
            <dd>{value}</dd>
          </Box>
        ))}
      </Box>
      {p.lightfastReason && (
        <Typography variant="caption" component="p">
          in light: {p.lightfastReason}
        </Typography>
      )}
      {(p.staining || p.lightfast) && (
        <Typography variant="caption" component="p">
          * typical of the pigment class, not of your tube
        </Typography>
      )}
    </Box>
  );
}

const Typical = () => <span title="typical of the pigment class">*</span>;

/** Words that are said by writing over them; saved on leaving. */
function Said({
  label,
  value,
  usual,
  maxLength,
  big = false,
  onSay,
}: {
  label: string;
  value: string;
  usual: string;
  maxLength: number;
  big?: boolean;
  onSay: (value: string) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    if (draft !== null && draft.trim() !== value) onSay(draft.trim());
    setDraft(null);
  };
  return (
    <InputBase
      value={draft ?? value}
      placeholder={usual}
      multiline={!big}
      maxRows={4}
      onFocus={() => setDraft(value)}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter" && big) (e.target as HTMLElement).blur();
        if (e.key === "Escape") {
          setDraft(null);
          e.stopPropagation();
        }
      }}
      fullWidth
      slotProps={{ input: { "aria-label": label, maxLength, title: value || usual } }}
      sx={{
        ...(big && { fontSize: 26, lineHeight: "32px", fontWeight: 500 }),
        ...(!big && {
          fontSize: 14,
          lineHeight: "20px",
          py: 0.5,
          borderBottom: `1px solid ${grey.hairline}`,
        }),
        "& input": { p: 0, height: 34, textOverflow: "ellipsis" },
        "& input::placeholder": { color: big ? grey.ink : grey.third, opacity: 1 },
        "& textarea::placeholder": { color: grey.third, opacity: 1 },
        "&.Mui-focused": { borderBottom: `2px solid ${grey.ink}` },
      }}
    />
  );
}

function Figure({
  label,
  value,
  onSay,
}: {
  label: string;
  value: number | null;
  onSay: (value: number | null) => void;
}) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const said = draft === null || draft.trim() === "" ? null : Number(draft.replace(",", "."));
  const wrong = Number.isNaN(said);
  const commit = () => {
    if (wrong) return;
    if (draft !== null && said !== value) onSay(said);
    setDraft(null);
  };
  return (
    <Box>
      <Typography variant="caption" component="label" htmlFor={id} sx={{ display: "block" }}>
        {label}
      </Typography>
      <InputBase
        id={id}
        value={draft ?? (value === null ? "" : String(value))}
        placeholder="not said"
        onFocus={() => setDraft(value === null ? "" : String(value))}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") (e.target as HTMLElement).blur();
        }}
        fullWidth
        error={wrong}
        slotProps={{ input: { inputMode: "decimal", maxLength: 10, "aria-invalid": wrong } }}
        sx={{
          fontFamily: figures,
          fontSize: 14,
          borderBottom: `1px solid ${grey.hairline}`,
          "& input": { py: 0.75 },
          "& input::placeholder": { color: grey.third, opacity: 1 },
          "&.Mui-focused": { borderBottomColor: grey.ink },
        }}
      />
      {wrong && (
        <Typography variant="caption" role="alert">
          a number, please
        </Typography>
      )}
    </Box>
  );
}
