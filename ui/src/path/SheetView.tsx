import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQueries } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { Pair, PairingOfBoth, Settings } from "../api/client";
import { pairQuery } from "../api/queries";
import { Choice } from "../parts/Choice";
import { keyOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { joined, listIn, relisted, useAddress, without } from "../parts/useAddress";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { nearest } from "../parts/nearest";

const mostStacked = 8;

/** Several ways stacked as one sheet: each step as painted, and let down below it. */
export function SheetView({
  id,
  settings,
  pairs,
  steps,
  called,
  children,
}: {
  id: number;
  settings: Settings;
  pairs: PairingOfBoth[];
  steps: number;
  called: (ref?: string) => string;
  children: ReactNode;
}) {
  const { search, show } = useAddress();
  const asked = listIn(search, "stack");
  const first = pairs[0]?.section;
  const stacked = asked
    ? asked.map((k) => pairs.find((p) => keyOf(p) === k)).filter((p) => p !== undefined)
    : pairs.filter((p) => p.section === first).slice(0, 4);
  const ways = useQueries({
    queries: stacked.map((p) => pairQuery({ wheel: id, a: p.a, b: p.b, steps }, settings)),
  });
  const change = (how: (now: string[]) => string[]) =>
    show(relisted("stack", how, stacked.map(keyOf)));
  const more = pairs.filter((p) => !stacked.includes(p));
  return (
    <Box component="section" aria-label="ladder sheet">
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
        {children}
        <Typography sx={{ color: grey.second }}>as painted, and let down below</Typography>
        {more.length > 0 && stacked.length < mostStacked && (
          <Choice label="lay another way on the sheet" shown={<span>another way</span>}>
            {(close) =>
              more.map((p) => (
                <MenuItem
                  key={keyOf(p)}
                  onClick={() => {
                    close();
                    change(joined(keyOf(p)));
                  }}
                >
                  {called(p.a)} to {called(p.b)}
                </MenuItem>
              ))
            }
          </Choice>
        )}
      </Box>
      {stacked.map((p, i) => {
        const way = ways[i]?.data;
        return (
          <Box
            key={keyOf(p)}
            component="article"
            aria-label={`${called(p.a)} to ${called(p.b)}`}
            sx={{ borderTop: `2px solid ${grey.ink}`, mt: 1, pt: 0.5 }}
          >
            <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Drop verdict={p.verdict} height={15} />
              <Typography variant="subtitle2" sx={{ flex: 1 }}>
                {called(p.a)} to {called(p.b)}{" "}
                <Box component="span" sx={{ fontWeight: 400, color: grey.third }}>
                  {p.section} · {p.verdict} {p.retention.toFixed(2)}
                </Box>
              </Typography>
              <Button size="small" color="inherit" onClick={() => change(without(keyOf(p)))}>
                take off
              </Button>
            </Box>
            {ways[i]?.error && <Typography role="alert">{ways[i].error.message}</Typography>}
            {way && <Strip way={way} />}
          </Box>
        );
      })}
      {stacked.length === 0 && (
        <Typography sx={{ mt: 2 }}>Nothing is on the sheet. Lay a way on it.</Typography>
      )}
    </Box>
  );
}

/** Both tubes and the steps between them, side by side, each over its ladder. */
function Strip({ way }: { way: Pair }) {
  const { fill } = useColours();
  const ends = [way.samples[0]!, way.samples[way.samples.length - 1]!];
  const columns = [
    { at: 0, m: ends[0]! },
    ...way.steps.map((s) => ({ at: s.at, m: s })),
    { at: 1, m: ends[1]! },
  ];
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: `repeat(${columns.length}, minmax(0, 1fr))`,
        gap: "2px",
      }}
    >
      {columns.map(({ at, m }, i) => {
        const here = nearest(way, at);
        const rungs = way.ladders.reduce((a, b) =>
          Math.abs(b.sample - here) < Math.abs(a.sample - here) ? b : a,
        ).rungs;
        return (
          <Box key={i} title={`${m.words}; ${m.verdict}`}>
            <svg width="100%" height={44} aria-hidden style={{ display: "block" }}>
              <rect width="100%" height={44} fill={fill(m.asPainted)} />
            </svg>
            <Box sx={{ display: "flex" }}>
              {rungs
                .filter((_, n) => n % 2 === 0)
                .map((r) => (
                  <svg
                    key={r.share + r.thickness}
                    width="100%"
                    height={18}
                    aria-hidden
                    style={{ display: "block", flex: 1, minWidth: 0 }}
                  >
                    <rect width="100%" height={18} fill={fill(r)} />
                  </svg>
                ))}
            </Box>
            <Typography
              sx={{
                fontFamily: figures,
                fontSize: 12,
                lineHeight: "16px",
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
              }}
            >
              {m.parts.length === 1
                ? m.parts[0]!.code
                : `${m.parts.map((x) => x.parts).join(" : ")}${m.parts.some((x) => x.letDown) ? "*" : ""}`}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}
