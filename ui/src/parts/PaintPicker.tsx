import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Paint } from "../api/client";
import { Drop, LeanMark } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { leanWords } from "./naming";
import { figures, grey } from "../drawing/style";

/** Paints for a role, in hue order; what belongs elsewhere stands below. */
export function PaintPicker({
  role,
  paints,
  present,
  taken,
  onPick,
  onClose,
  autoFocus = true,
  own,
}: {
  role: string;
  paints: Paint[];
  /** The painter's tubes, which stand before all others. */
  own?: Paint[];
  present?: string;
  taken: string[];
  onPick: (paint: Paint) => void;
  onClose?: () => void;
  autoFocus?: boolean;
}) {
  const [search, setSearch] = useState("");
  const list = useRef<HTMLDivElement>(null);
  const { belonging, others } = useMemo(() => sorted(paints, role, search), [paints, role, search]);
  const box = useMemo(() => sorted(own ?? [], role, search), [own, role, search]);
  const keys = (e: KeyboardEvent) => {
    const options = [
      ...(list.current?.querySelectorAll<HTMLElement>("[role=option]:not([aria-disabled=true])") ??
        []),
    ];
    const at = options.indexOf(document.activeElement as HTMLElement);
    if (e.key === "ArrowDown" || e.key === "ArrowUp") {
      e.preventDefault();
      e.stopPropagation();
      options[
        Math.max(0, Math.min(options.length - 1, at + (e.key === "ArrowDown" ? 1 : -1)))
      ]?.focus();
    } else if (e.key === "Enter" && at < 0 && options.length > 0 && search !== "") {
      e.preventDefault();
      options[0]!.click();
    } else if (e.key === "Escape") {
      e.stopPropagation();
      if (onClose) onClose();
      else (e.target as HTMLElement).blur(); // keys go elsewhere again
    }
  };
  const row = (p: Paint) => (
    <PaintRow
      key={p.id}
      paint={p}
      chosen={p.id === present}
      taken={p.id !== present && taken.includes(p.id)}
      onPick={() => onPick(p)}
    />
  );
  return (
    <Box
      component="section"
      aria-label={`choose the ${role}`}
      onKeyDown={keys}
      sx={{ display: "flex", flexDirection: "column", minHeight: 0, height: 1 }}
    >
      <Box sx={{ display: "flex", alignItems: "baseline", justifyContent: "space-between" }}>
        <Typography variant="h2">Which {role}?</Typography>
        {onClose && (
          <Button color="inherit" onClick={onClose}>
            leave it
          </Button>
        )}
      </Box>
      <InputBase
        autoFocus={autoFocus}
        fullWidth
        placeholder="search by name or Colour Index"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        slotProps={{ input: { "aria-label": `search a ${role}`, maxLength: 60 } }}
        sx={{
          borderBottom: `2px solid ${grey.ink}`,
          fontSize: 15,
          py: 0.5,
          "& input::placeholder": { color: grey.third, opacity: 1 },
        }}
      />
      <Box
        ref={list}
        role="group"
        aria-label={`paints for the ${role}`}
        sx={{ overflowY: "auto", flex: 1, minHeight: 0, mt: 0.5 }}
      >
        {own && (
          <>
            {box.belonging.length + box.others.length > 0 && (
              <Box role="listbox" aria-label={`in your box for a ${role}`}>
                {box.belonging.map(row)}
                {box.others.filter((p) => !p.roles.length || search !== "").map(row)}
              </Box>
            )}
            <Typography variant="caption" component="p" sx={{ mt: 1.5, mb: 0.5 }}>
              {box.belonging.length === 0 ? `no ${role} in your box; ` : ""}from the library
            </Typography>
          </>
        )}
        {belonging.length > 0 && (
          <Box role="listbox" aria-label={`usual for a ${role}`}>
            {belonging.map(row)}
          </Box>
        )}
        {others.length > 0 && (
          <>
            <Typography variant="caption" component="p" sx={{ mt: 2, mb: 0.5 }}>
              not usually a {role}
            </Typography>
            <Box role="listbox" aria-label={`not usually a ${role}`}>
              {others.map(row)}
            </Box>
          </>
        )}
        {paints.length > 0 && belonging.length + others.length === 0 && (
          <Typography sx={{ mt: 2 }}>
            No paint of the library is called that. Try part of a name, or a code such as PB29.
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function sorted(paints: Paint[], role: string, search: string) {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = paints
    .filter((p) => p.playable.includes(role))
    .filter((p) =>
      words.every((w) => `${p.id} ${p.ci} ${p.name} ${p.family}`.toLowerCase().includes(w)),
    )
    .sort((a, b) => a.hueOrder - b.hueOrder);
  const belongs = (p: Paint) => p.roles?.includes(role) ?? false;
  const earth = (p: Paint) => Number(p.family === "earth");
  return {
    belonging: found.filter(belongs).sort((a, b) => earth(a) - earth(b)),
    others: found.filter((p) => !belongs(p)),
  };
}

function PaintRow({
  paint,
  chosen,
  taken,
  onPick,
}: {
  paint: Paint;
  chosen: boolean;
  taken: boolean;
  onPick: () => void;
}) {
  const { shortName: name, also } = paint;
  const pick = () => {
    if (!taken) onPick();
  };
  return (
    <Box
      role="option"
      aria-selected={chosen}
      aria-disabled={taken}
      data-paint={paint.id}
      tabIndex={chosen ? 0 : -1}
      onClick={pick}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          e.stopPropagation();
          pick();
        }
      }}
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1,
        py: 0.75,
        px: 0.5,
        minHeight: 50,
        cursor: taken ? "default" : "pointer",
        opacity: taken ? 0.45 : 1,
        borderTop: `1px solid ${grey.hairline}`,
        outlineOffset: "-2px !important",
        "&:hover": { bgcolor: grey.track },
        ...(chosen && { boxShadow: `inset 3px 0 0 ${grey.ink}`, pl: 1.25 }),
      }}
    >
      <PaintStrip paint={paint} width={52} />
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography
          variant="body2"
          sx={{
            fontWeight: 500,
            fontSize: 14,
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
          title={paint.name}
        >
          {name}
        </Typography>
        <Typography
          variant="caption"
          component="p"
          sx={{
            fontFamily: figures,
            whiteSpace: "nowrap",
            overflow: "hidden",
            textOverflow: "ellipsis",
          }}
        >
          {paint.ci}
          {also && ` · ${also}`}
          {taken && " · already in this wheel"}
        </Typography>
      </Box>
      {paint.lean && (
        <Box sx={{ flex: "none", width: 80, textAlign: "right" }}>
          <LeanMark lean={paint.lean} />
          <Typography variant="caption" component="p">
            {leanWords(paint.lean)}
          </Typography>
        </Box>
      )}
      <Box sx={{ flex: "none", width: 14 }} title={paint.verdict}>
        <Drop verdict={paint.verdict} height={15} />
      </Box>
    </Box>
  );
}
