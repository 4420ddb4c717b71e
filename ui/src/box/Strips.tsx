import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useRef, type KeyboardEvent } from "react";
import type { KeptTube } from "../api/client";
import { leanWords, nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { DrawDown } from "../drawing/DrawDown";
import { Drop, HidingMark, LeanMark, StrengthMark } from "../drawing/Marks";
import { familyWords } from "./words";
import { VisuallyHidden } from "../parts/VisuallyHidden";

const wide = 100;

/** The box as drawn-down strips. Arrow keys walk them, Enter opens one. */
export function Strips({
  tubes,
  chosen,
  beside,
  byFamily,
  onChoose,
}: {
  tubes: KeptTube[];
  chosen?: number;
  beside?: number;
  byFamily: boolean;
  onChoose: (t: KeptTube) => void;
}) {
  const list = useRef<HTMLDivElement>(null);
  const keys = (e: KeyboardEvent) => {
    const all = [...(list.current?.querySelectorAll<HTMLElement>("[role=option]") ?? [])];
    const at = all.indexOf(document.activeElement as HTMLElement);
    if (at < 0) return;
    const top = all[at]!.offsetTop;
    const row = all.filter((o) => o.offsetTop === all[0]!.offsetTop).length;
    const by = {
      ArrowRight: 1,
      ArrowLeft: -1,
      ArrowDown: row,
      ArrowUp: -row,
      Home: -at,
      End: all.length - 1 - at,
    }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    const next = all[Math.max(0, Math.min(all.length - 1, at + by))];
    if (
      next &&
      (Math.abs(by) === 1 || next.offsetTop !== top || e.key === "Home" || e.key === "End")
    )
      next.focus();
  };
  const present = tubes.some((t) => t.id === chosen) ? chosen : tubes[0]?.id;
  return (
    <Box
      ref={list}
      role="listbox"
      aria-label="paints of the box"
      onKeyDown={keys}
      sx={{ display: "flex", flexWrap: "wrap", rowGap: 1.5 }}
    >
      {tubes.map((t, i) => {
        const begins = byFamily && t.paint.family !== tubes[i - 1]?.paint.family;
        const ends = t.paint.family !== tubes[i + 1]?.paint.family;
        return (
          <Strip
            key={t.id}
            tube={t}
            heading={begins ? familyWords[t.paint.family] : undefined}
            rule={byFamily ? (ends ? wide : wide + 10) : 0}
            held={t.id === chosen ? 1 : t.id === beside ? 2 : 0}
            tabIndex={t.id === present ? 0 : -1}
            onChoose={() => onChoose(t)}
          />
        );
      })}
    </Box>
  );
}

function Strip({
  tube,
  heading,
  rule,
  held,
  tabIndex,
  onChoose,
}: {
  tube: KeptTube;
  heading?: string;
  rule: number;
  held: 0 | 1 | 2;
  tabIndex: number;
  onChoose: () => void;
}) {
  const p = tube.paint;
  const name = nameOf(tube);
  const oneLine = { overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" } as const;
  return (
    <Box
      role="option"
      aria-selected={held > 0}
      data-tube={tube.id}
      tabIndex={tabIndex}
      onClick={onChoose}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onChoose();
        }
      }}
      sx={{
        width: wide + 10,
        cursor: "pointer",
        "&:hover .name": { bgcolor: grey.track },
      }}
    >
      <Typography
        variant="caption"
        component="p"
        sx={{ height: 18, color: grey.ink, fontWeight: 500, ...oneLine }}
      >
        {heading}
      </Typography>
      <Box sx={{ height: 2, width: rule, bgcolor: grey.ink, mb: 0.75 }} />
      <Box>
        <Box
          sx={{
            position: "relative",
            width: wide,
            outline: held ? `2.2px ${held === 1 ? "solid" : "dashed"} ${grey.ink}` : "none",
            outlineOffset: "2px",
          }}
        >
          <DrawDown paint={p} width={wide} height={150} />
          {p.made !== "modelled" && (
            <Box
              component="span"
              sx={{
                position: "absolute",
                right: 0,
                bottom: 0,
                bgcolor: grey.paper,
                fontSize: 12,
                lineHeight: "16px",
                px: 0.5,
              }}
            >
              {
                {
                  label: "label",
                  swatches: "swatches",
                  measured: "measured",
                  adjusted: "adjusted",
                  modelled: "",
                }[p.made]
              }
            </Box>
          )}
        </Box>
        <Typography
          className="name"
          variant="body2"
          component="p"
          title={name}
          sx={{
            fontWeight: 500,
            mt: 0.75,
            width: wide,
            height: 36,
            lineHeight: "17px",
            overflow: "hidden",
            display: "-webkit-box",
            WebkitLineClamp: 2,
            WebkitBoxOrient: "vertical",
            overflowWrap: "anywhere",
          }}
        >
          {name}
        </Typography>
        <Typography
          variant="caption"
          component="p"
          sx={{ fontFamily: figures, width: wide, ...oneLine }}
        >
          {p.ci || "no code"}
          {tube.content.grade === "student" && " · student"}
          {tube.learned && ` · ${tube.paint.g.toFixed(2)} ×`}
        </Typography>
        <Box sx={{ display: "flex", alignItems: "center", gap: 0.5, height: 20 }}>
          {p.lean && (
            <>
              <LeanMark lean={p.lean} />
              <Typography
                variant="caption"
                component="span"
                sx={{ color: grey.ink, whiteSpace: "nowrap" }}
              >
                {p.lean.toward === "centred" ? "centred" : leanWords(p.lean).slice(3)}
              </Typography>
            </>
          )}
        </Box>
        <VisuallyHidden>
          {[p.family, p.verdict, p.cautious && "take care"].filter(Boolean).join(", ")}
        </VisuallyHidden>
        <Box sx={{ display: "flex", alignItems: "center", gap: 0.5, height: 20 }}>
          <Box sx={{ width: 14 }}>
            <Drop verdict={p.verdict} height={15} />
          </Box>
          <StrengthMark strength={p.strength} />
          <HidingMark hiding={p.hiding} />
          {p.cautious && (
            <Typography
              variant="caption"
              component="span"
              sx={{ color: grey.ink, borderBottom: `1.5px solid ${grey.ink}`, lineHeight: "13px" }}
            >
              care
            </Typography>
          )}
        </Box>
      </Box>
    </Box>
  );
}
