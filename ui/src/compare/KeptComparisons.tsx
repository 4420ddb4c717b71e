import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as To } from "react-router";
import type { Conditions } from "../api/client";
import { grey } from "../drawing/style";
import { showItAt } from "../parts/showing";
import { colourFiles, TakeAlong } from "../parts/TakeAlong";
import { useComparisons, type Shown } from "./useComparisons";

/** Keeps what is looked at with a note and a decision, lists what was kept, and hands it out as files. */
export function KeptComparisons({
  address,
  wheels,
  view,
}: {
  address: string;
  wheels: number[];
  view: Conditions;
}) {
  const { all, keep, note, drop } = useComparisons();
  const [draft, setDraft] = useState({ note: "", decision: "" });
  const file = (what: "export" | "palette", format: string) =>
    `/api/compare/${what}?${new URLSearchParams({ wheels: wheels.join(","), ...view, format })}`;
  const paper = `/compare/paper?${new URLSearchParams({ systems: wheels.join(","), ...view })}`;
  return (
    <Box
      component="section"
      aria-label="kept comparisons"
      sx={{ borderTop: `2px solid ${grey.ink}`, mt: 2, pt: 1 }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          Keep this comparison
        </Typography>
        <Button size="small" color="inherit" component={To} to={paper}>
          on paper
        </Button>
        <TakeAlong
          of={[
            { name: "a drawing of it (SVG)", href: file("export", "svg") },
            { name: "its figures (CSV)", href: file("export", "csv") },
            ...colourFiles((format) => file("palette", format)),
          ]}
        />
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 1, alignItems: "flex-start" }}>
        <Text label="note" value={draft.note} onChange={(note) => setDraft({ ...draft, note })} />
        <Text
          label="decision: took which, because"
          value={draft.decision}
          onChange={(decision) => setDraft({ ...draft, decision })}
        />
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => {
            keep({ address, ...draft });
            setDraft({ note: "", decision: "" });
          }}
          sx={{ height: 40 }}
        >
          keep it
        </Button>
      </Box>
      {all.map((c) => (
        <One
          key={c.key}
          kept={c}
          view={view}
          onNote={({ version, ...content }) => note(c.id, content, version)}
          onDrop={() => drop(c)}
        />
      ))}
    </Box>
  );
}

type Draft = { note: string; decision: string; version: number };

function One({
  kept,
  view,
  onNote,
  onDrop,
}: {
  kept: Shown;
  view: Conditions;
  onNote: (to: Draft) => void;
  onDrop: () => void;
}) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const made = new Date(kept.made).toLocaleDateString(undefined, {
    day: "numeric",
    month: "short",
    year: "numeric",
  });
  return (
    <Box
      role="group"
      aria-label={`kept ${made}`}
      sx={{ borderTop: `1px solid ${grey.hairline}`, mt: 1, pt: 0.75 }}
    >
      {draft ? (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 1 }}>
          <Text label="note" value={draft.note} onChange={(note) => setDraft({ ...draft, note })} />
          <Text
            label="decision: took which, because"
            value={draft.decision}
            onChange={(decision) => setDraft({ ...draft, decision })}
          />
          <Button
            variant="outlined"
            color="inherit"
            onClick={() => {
              onNote(draft);
              setDraft(null);
            }}
            sx={{ height: 40 }}
          >
            save
          </Button>
          <Button color="inherit" onClick={() => setDraft(null)}>
            leave it
          </Button>
        </Box>
      ) : (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "baseline" }}>
          <Typography
            component={To}
            to={`/compare?${kept.address}`}
            sx={{ color: grey.ink, fontWeight: 500 }}
          >
            {made}
          </Typography>
          <Typography sx={{ flex: 1, minWidth: 200, whiteSpace: "pre-wrap" }}>
            {kept.decision || "no decision yet"}
            {kept.note && (
              <Box component="span" sx={{ color: grey.second }}>
                {" "}
                · {kept.note}
              </Box>
            )}
            {kept.waits && (
              <Box component="span" sx={{ color: grey.second }}>
                {" "}
                · on its way
              </Box>
            )}
          </Typography>
          {kept.id > 0 && (
            <Button
              size="small"
              color="inherit"
              component={To}
              to={showItAt(view, "comparison", kept.id)}
            >
              show it to others
            </Button>
          )}
          <Button
            size="small"
            color="inherit"
            disabled={kept.id === 0}
            onClick={() =>
              setDraft({ note: kept.note, decision: kept.decision, version: kept.version })
            }
          >
            write on it
          </Button>
          <Button size="small" color="inherit" disabled={kept.id === 0} onClick={onDrop}>
            drop it
          </Button>
        </Box>
      )}
    </Box>
  );
}

function Text({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <TextField
      size="small"
      multiline
      maxRows={4}
      label={label}
      value={value}
      onChange={(e) => onChange(e.target.value)}
      slotProps={{ htmlInput: { maxLength: 2000 } }}
      sx={{ flex: "1 1 260px", maxWidth: 420 }}
    />
  );
}
