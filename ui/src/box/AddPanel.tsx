import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Conditions, KeptTube, Paint } from "../api/client";
import { nameQuery, paintsQuery } from "../api/queries";
import { leanWords } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { LeanMark } from "../drawing/Marks";
import { PaintStrip } from "../drawing/PaintStrip";
import { ByLook } from "./ByLook";
import { familyWords } from "./words";
import { PanelHead } from "./Pieces";

/** The library, to take several paints from at once: space marks one, Enter adds those marked. */
export function AddPanel({
  view,
  tubes,
  studentSafe,
  onAdd,
  onAddByLook,
  onName,
  onClose,
}: {
  view: Conditions;
  tubes: KeptTube[];
  studentSafe: boolean;
  onAdd: (ids: string[]) => void;
  /** Adds a tube without a name as what it looks like. */
  onAddByLook: (paint: string) => void;
  /** Adds a tube by the words on it. */
  onName: (words: string) => void;
  onClose: () => void;
}) {
  const paints = useQuery(paintsQuery(view));
  const [search, setSearch] = useState("");
  const [marked, setMarked] = useState<string[]>([]);
  const [looking, setLooking] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  const owned = useMemo(() => new Set(tubes.map((t) => t.definition.library)), [tubes]);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const typed = useDeferredValue(search.trim());
  const named = useQuery({ ...nameQuery(typed), enabled: typed.length > 2 });
  const behind = typed.length > 2 ? (named.data?.found ?? []) : [];
  const place = (p: Paint) => {
    const at = behind.findIndex((b) => b.paints.includes(p.id));
    return at < 0 ? behind.length : at;
  };
  const found = (paints.data ?? [])
    .filter(
      (p) =>
        (!studentSafe || p.studentSafe) &&
        (place(p) < behind.length ||
          words.every((w) => `${p.id} ${p.ci} ${p.name} ${p.family}`.toLowerCase().includes(w))),
    )
    .sort((a, b) => place(a) - place(b));
  const toggle = (id: string) =>
    setMarked((now) => (now.includes(id) ? now.filter((m) => m !== id) : [...now, id]));
  const keys = (e: KeyboardEvent) => {
    const options = [...(list.current?.querySelectorAll<HTMLElement>("[role=option]") ?? [])];
    const at = options.indexOf(document.activeElement as HTMLElement);
    const onOption = at >= 0;
    if (e.key === "ArrowDown" || e.key === "ArrowUp") {
      e.preventDefault();
      e.stopPropagation();
      options[
        Math.max(0, Math.min(options.length - 1, at + (e.key === "ArrowDown" ? 1 : -1)))
      ]?.focus();
    } else if (e.key === " " && onOption) {
      e.preventDefault();
      toggle(options[at]!.dataset.paint!);
    } else if (e.key === "Enter" && !(e.target instanceof HTMLButtonElement)) {
      e.preventDefault();
      const one = onOption ? options[at]!.dataset.paint! : search !== "" ? found[0]?.id : undefined;
      const all = marked.length > 0 ? marked : one ? [one] : [];
      if (all.length > 0) onAdd(all);
    } else if (e.key === "Escape") {
      e.stopPropagation();
      onClose();
    }
  };
  const row = (p: Paint, heading?: string) => {
    const { shortName: name, also } = p;
    const on = marked.includes(p.id);
    return (
      <Box key={p.id}>
        {heading && (
          <Typography
            variant="caption"
            component="p"
            sx={{ mt: 1, fontWeight: 500, color: grey.ink }}
          >
            {heading}
          </Typography>
        )}
        <Box
          role="option"
          aria-selected={on}
          data-paint={p.id}
          tabIndex={-1}
          onClick={() => toggle(p.id)}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            py: 0.5,
            px: 0.5,
            minHeight: 46,
            cursor: "pointer",
            borderTop: `1px solid ${grey.hairline}`,
            outlineOffset: "-2px !important",
            "&:hover": { bgcolor: grey.track },
            ...(on && { boxShadow: `inset 4px 0 0 ${grey.ink}`, pl: 1.5, bgcolor: grey.track }),
          }}
        >
          <PaintStrip paint={p} width={52} height={32} />
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Typography
              variant="body2"
              sx={{
                fontWeight: 500,
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
              }}
              title={p.name}
            >
              {name}
            </Typography>
            <Typography
              variant="caption"
              component="p"
              sx={{
                fontFamily: figures,
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
              }}
            >
              {p.ci}
              {also && ` · ${also}`}
              {owned.has(p.id) && " · in your box"}
            </Typography>
          </Box>
          {p.lean && (
            <Box sx={{ flex: "none", width: 84, textAlign: "right" }}>
              <LeanMark lean={p.lean} />
              <Typography variant="caption" component="p">
                {leanWords(p.lean)}
              </Typography>
            </Box>
          )}
        </Box>
      </Box>
    );
  };
  return (
    <Box
      component="section"
      aria-label="add from the library"
      onKeyDown={keys}
      sx={{ display: "flex", flexDirection: "column", minHeight: 0, height: { xs: 560, md: 1 } }}
    >
      <PanelHead title="Add paints" onClose={onClose} />
      <InputBase
        autoFocus
        fullWidth
        placeholder="what is printed on it, a code or a family"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        slotProps={{ input: { "aria-label": "search the library", maxLength: 60 } }}
        sx={{
          borderBottom: `2px solid ${grey.ink}`,
          fontSize: 15,
          py: 0.5,
          "& input::placeholder": { color: grey.third, opacity: 1 },
        }}
      />
      {search === "" && (
        <Button
          color="inherit"
          aria-expanded={looking}
          sx={{ px: 0, alignSelf: "flex-start" }}
          onClick={() => setLooking(!looking)}
        >
          {looking ? "the library" : "no name on it?"}
        </Button>
      )}
      {search === "" && looking && (
        <Box sx={{ overflowY: "auto", flex: 1, minHeight: 0 }}>
          <ByLook onAdd={onAddByLook} />
        </Box>
      )}
      <Box
        ref={list}
        hidden={search === "" && looking}
        role="listbox"
        aria-multiselectable
        aria-label="paints of the library"
        sx={{ overflowY: "auto", flex: 1, minHeight: 0 }}
      >
        {behind.length > 0 && (
          <Box sx={{ py: 1, borderBottom: `1px solid ${grey.hairline}` }}>
            <Typography variant="body2">
              Printed on a tube, “{named.data!.as}” is usually{" "}
              {behind.map((b) => `${b.name} (${b.code})`).join(", or ")}.{" "}
              {behind.length > 1 && behind[0]!.tell && `To tell: ${behind[0]!.tell}.`}
            </Typography>
            <Button color="inherit" sx={{ px: 0 }} onClick={() => onName(typed)}>
              add it as “{typed}”
            </Button>
          </Box>
        )}
        {found.map((p, i) =>
          row(
            p,
            behind.length > 0 || p.family === found[i - 1]?.family
              ? undefined
              : familyWords[p.family],
          ),
        )}
        {paints.data && found.length === 0 && (
          <Typography sx={{ mt: 2 }}>
            {named.data?.says ||
              "No paint of the library is called that. Try part of a name, or a code such as PB29."}
          </Typography>
        )}
      </Box>
      <Box sx={{ pt: 1, borderTop: `1px solid ${grey.ink}` }}>
        <Button
          variant="contained"
          fullWidth
          size="large"
          disabled={marked.length === 0}
          onClick={() => onAdd(marked)}
        >
          {marked.length === 0
            ? "mark the paints you own"
            : marked.length === 1
              ? "add 1 paint"
              : `add ${marked.length} paints`}
        </Button>
        <Typography variant="caption" component="p" sx={{ mt: 0.5 }}>
          arrow keys walk, space marks, Enter adds
        </Typography>
      </Box>
    </Box>
  );
}
