import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import { answer, client, type Conditions, type Schemas } from "../api/client";
import { comparisonsQuery } from "../api/queries";
import { inTurn } from "../api/writing";
import { grey } from "../drawing/style";

type Kept = Schemas["KeptComparison"];

const thing = "comparisons";

const formats = {
  svg: "drawing (SVG)",
  csv: "figures (CSV)",
} as const;

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
  const queries = useQueryClient();
  const kept = useQuery(comparisonsQuery);
  const adopt = (all: Kept[]) => {
    // A read that is under way may be older than what was just answered.
    void queries.cancelQueries(comparisonsQuery);
    queries.setQueryData(comparisonsQuery.queryKey, all);
  };
  const look = () => void queries.invalidateQueries(comparisonsQuery);
  const [draft, setDraft] = useState({ note: "", decision: "" });
  const keep = useMutation({
    mutationFn: () =>
      inTurn(thing, () => answer(client.POST("/api/comparisons", { body: { address, ...draft } }))),
    onSuccess: (all) => {
      adopt(all);
      setDraft({ note: "", decision: "" });
    },
  });
  const drop = useMutation({
    mutationFn: (id: number) =>
      inTurn(thing, () =>
        answer(client.DELETE("/api/comparisons/{id}", { params: { path: { id } } })),
      ),
    onSuccess: adopt,
    onError: look,
  });
  const file = (format: keyof typeof formats) =>
    `/api/compare/export?${new URLSearchParams({ wheels: wheels.join(","), ...view, format })}`;
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
        {(Object.keys(formats) as (keyof typeof formats)[]).map((format) => (
          <Button
            key={format}
            size="small"
            color="inherit"
            component="a"
            href={file(format)}
            download
          >
            {formats[format]}
          </Button>
        ))}
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
          disabled={keep.isPending}
          onClick={() => keep.mutate()}
          sx={{ height: 40 }}
        >
          keep it
        </Button>
      </Box>
      {(keep.error ?? drop.error) && (
        <Typography role="alert">{(keep.error ?? drop.error)?.message}</Typography>
      )}
      {(kept.data ?? []).map((c) => (
        <One key={c.id} kept={c} onAdopt={adopt} onLook={look} onDrop={() => drop.mutate(c.id)} />
      ))}
    </Box>
  );
}

function One({
  kept,
  onAdopt,
  onLook,
  onDrop,
}: {
  kept: Kept;
  onAdopt: (all: Kept[]) => void;
  onLook: () => void;
  onDrop: () => void;
}) {
  const [draft, setDraft] = useState<{ note: string; decision: string; version: number } | null>(
    null,
  );
  const save = useMutation({
    mutationFn: (body: { note: string; decision: string; version: number }) =>
      inTurn(thing, () =>
        answer(client.PUT("/api/comparisons/{id}", { params: { path: { id: kept.id } }, body })),
      ),
    onSuccess: (all) => {
      onAdopt(all);
      setDraft(null);
    },
    onError: onLook,
  });
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
            disabled={save.isPending}
            onClick={() =>
              save.mutate({ ...draft, version: save.error ? kept.version : draft.version })
            }
            sx={{ height: 40 }}
          >
            {save.error ? "save mine over it" : "save"}
          </Button>
          <Button color="inherit" onClick={() => setDraft(null)}>
            leave it
          </Button>
          {save.error && (
            <Typography role="alert" sx={{ width: 1 }}>
              {save.error.message} Kept now: {kept.note || "no note"};{" "}
              {kept.decision || "no decision"}.
            </Typography>
          )}
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
          </Typography>
          <Button
            size="small"
            color="inherit"
            onClick={() =>
              setDraft({ note: kept.note, decision: kept.decision, version: kept.version })
            }
          >
            write on it
          </Button>
          <Button size="small" color="inherit" onClick={onDrop}>
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
