import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { PairingOfBoth, Pairings } from "../api/client";
import { leanWords } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { Both } from "../drawing/Swatch";
import type { Paints } from "./Cell";
import { Lid } from "./Covered";
import { ruleWords } from "./words";

/** The first role's paints by the second's, each from the ones that lean back to the ones that lean on. */
export function Grid({
  block,
  pairs,
  paints,
  open,
  covered,
  onOpen,
}: {
  block: Pairings["sections"][number];
  pairs: PairingOfBoth[];
  paints: Paints;
  open: string | null;
  covered: (p: PairingOfBoth) => boolean;
  onOpen: (p: PairingOfBoth) => void;
}) {
  const byLean = (ids: string[]) =>
    [...new Set(ids)].sort(
      (x, y) => (paints.get(x)!.lean?.degrees ?? 0) - (paints.get(y)!.lean?.degrees ?? 0),
    );
  const [rows, columns] = [byLean(pairs.map((p) => p.a)), byLean(pairs.map((p) => p.b))];
  const at = (a: string, b: string) => pairs.find((p) => p.a === a && p.b === b);
  const head = (id: string) => {
    const p = paints.get(id)!;
    return (
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", minWidth: 0 }}>
        <Both paint={p} width={22} />
        <Box sx={{ minWidth: 0 }}>
          <Typography
            variant="body2"
            sx={{
              fontWeight: 500,
              lineHeight: "15px",
              overflow: "hidden",
              textOverflow: "ellipsis",
              display: "-webkit-box",
              WebkitLineClamp: 2,
              WebkitBoxOrient: "vertical",
            }}
          >
            {p.name}
          </Typography>
          <Typography variant="caption" component="p">
            {p.temperature && `${p.temperature}, `}
            {p.lean ? leanWords(p.lean) : p.code}
          </Typography>
        </Box>
      </Box>
    );
  };
  const cell = (p: PairingOfBoth, a: string, b: string) => (
    <Box
      component="button"
      data-pair={`${a}~${b}`}
      aria-label={`${paints.get(a)!.name} with ${paints.get(b)!.name}: ${covered(p) ? "covered" : `${p.verdict}, ${p.retention.toFixed(2)}, ${ruleWords(p)}`}`}
      onClick={() => onOpen(p)}
      sx={{
        p: 0.5,
        border: `${open === `${a}~${b}` ? 2 : 1}px solid ${open === `${a}~${b}` ? grey.ink : grey.hairline}`,
        bgcolor: "transparent",
        color: grey.ink,
        font: "inherit",
        cursor: "pointer",
      }}
    >
      {covered(p) ? (
        <Lid height={46} />
      ) : (
        <>
          {p.band && <Ribbon band={p.band} height={22} middle={false} />}
          <Box
            component="span"
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 0.75,
              pt: 0.5,
              fontFamily: figures,
              fontSize: 12,
            }}
          >
            <Drop verdict={p.verdict} sure={p.sure} height={13} />
            {p.retention.toFixed(2)}
            <Box component="span" sx={{ flex: 1, textAlign: "right", fontWeight: 700 }}>
              {!p.agrees && "≠"}
            </Box>
          </Box>
        </>
      )}
    </Box>
  );
  return (
    <Box
      role="table"
      aria-label={`${block.name}, by lean`}
      sx={{
        display: "grid",
        gridTemplateColumns: `minmax(96px, 132px) repeat(${columns.length}, minmax(92px, 1fr))`,
        gap: 0.75,
        overflowX: "auto",
        pb: 1,
      }}
    >
      <Box role="row" sx={{ display: "contents" }}>
        <span role="cell" />
        {columns.map((b) => (
          <Box key={b} role="columnheader">
            {head(b)}
          </Box>
        ))}
      </Box>
      {rows.map((a) => (
        <Box key={a} role="row" sx={{ display: "contents" }}>
          <Box role="rowheader" sx={{ alignSelf: "center" }}>
            {head(a)}
          </Box>
          {columns.map((b) => {
            const p = at(a, b);
            return (
              <Box key={b} role="cell" sx={{ display: "grid" }}>
                {p && cell(p, a, b)}
              </Box>
            );
          })}
        </Box>
      ))}
    </Box>
  );
}
