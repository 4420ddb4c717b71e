import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { figures, grey } from "../drawing/style";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { columnsOf, type Comparison, type Compared } from "./shapes";
import { Word } from "../parts/Word";

/** The figures of every system, a row each. */
export function Figures({ got, priced = true }: { got: Comparison; priced?: boolean }) {
  const { fill } = useColours();
  const most = (of: (s: Compared) => number) => Math.max(1e-6, ...got.systems.map(of));
  const tubes = most((s) => s.tubes);
  const price = most((s) => s.price ?? 0);
  const rows: { name: ReactNode; of: (s: Compared) => [ReactNode, ReactNode?] }[] = [
    {
      name: (
        <>
          <Drop verdict="clean" height={14} /> clean hues
        </>
      ),
      of: (s) => [
        `${Math.round(100 * s.cleanCoverage)} %`,
        <Bar key="b" share={s.cleanCoverage} off={s.cleanDeviation} />,
      ],
    },
    {
      name: "mean brightness",
      of: (s) => [
        s.meanBrightness.toFixed(2),
        <Bar key="b" share={s.meanBrightness} off={s.meanDeviation} />,
      ],
    },
    {
      name: "vivid hues",
      of: (s) => [
        `${Math.round(100 * s.vividCoverage)} %`,
        <Bar key="b" share={s.vividCoverage} />,
      ],
    },
    {
      name: (
        <>
          <Drop verdict="softened" height={14} /> or softened
        </>
      ),
      of: (s) => [`${Math.round(100 * s.softCoverage)} %`, <Bar key="b" share={s.softCoverage} />],
    },
    {
      name: "widest gap",
      of: (s) =>
        s.widestGap.degrees
          ? [
              `${s.widestGap.degrees}°`,
              s.widestGap.from === s.widestGap.to
                ? s.widestGap.from
                : `${s.widestGap.from} to ${s.widestGap.to}`,
            ]
          : ["none"],
    },
    {
      name: "darkest, its tint",
      of: (s) => [
        `L ${s.darkest.lab[0]!.toFixed(1)}`,
        <Two
          key="t"
          colours={[fill(s.darkest.shown), fill(s.darkest.tint)]}
          title={s.darkest.parts.map((p) => `${p.parts} ${p.code}`).join(" : ")}
        />,
      ],
    },
    {
      name: "complements’ grey, C*",
      of: (s) => [
        s.complementMiddles.toFixed(1),
        <Bar key="b" share={s.complementMiddles / most((x) => x.complementMiddles)} />,
      ],
    },
    {
      name: <Word of="evenness" />,
      of: (s) => [
        s.evenness.toFixed(2),
        s.jumps === 0 ? "no jump" : `${s.jumps} jump${s.jumps > 1 ? "s" : ""}`,
      ],
    },
    {
      name: "shift in warm light",
      of: (s) => (s.lamp.slot ? [s.lamp.de00.toFixed(1), s.lamp.slot] : ["", "too dark to judge"]),
    },
    { name: "tubes", of: (s) => [s.tubes, <Bar key="b" share={s.tubes / tubes} />] },
    ...(priced
      ? [
          {
            name: "their price",
            of: (s: Compared): [ReactNode, ReactNode?] =>
              s.price === null
                ? ["", "not known"]
                : [s.price.toFixed(2), <Bar key="b" share={s.price / price} />],
          },
        ]
      : []),
    { name: "see-through", of: (s) => [s.transparent, s.opaque > 0 ? `${s.opaque} opaque` : ""] },
    {
      name: "care",
      of: (s) =>
        s.cautions.length === 0 ? ["", "none special"] : [s.cautions.length, s.cautions.join(", ")],
    },
  ];
  return (
    <Box
      role="table"
      aria-label="figures"
      sx={{
        display: "grid",
        gridTemplateColumns: columnsOf(got.systems.length),
        alignItems: "stretch",
        position: "relative",
      }}
    >
      <Box
        role="row"
        sx={{
          position: "absolute",
          width: "1px",
          height: "1px",
          overflow: "hidden",
          clipPath: "inset(50%)",
        }}
      >
        <span role="columnheader">figure</span>
        {got.systems.map((s, n) => (
          <span key={n} role="columnheader">
            {s.name}
          </span>
        ))}
      </Box>
      {rows.map((row, i) => (
        <Box key={i} role="row" sx={{ display: "contents" }}>
          <Typography
            role="rowheader"
            variant="body2"
            component="div"
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 0.75,
              borderTop: `1px solid ${grey.hairline}`,
              py: 0.375,
              whiteSpace: { sm: "nowrap" },
              color: grey.second,
            }}
          >
            {row.name}
          </Typography>
          {got.systems.map((s, n) => {
            const [value, more] = row.of(s);
            return (
              <Box
                key={n}
                role="cell"
                sx={{
                  display: "grid",
                  gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "50px minmax(0, 1fr)" },
                  minWidth: 0,
                  gap: 0.75,
                  alignItems: "center",
                  borderTop: `1px solid ${grey.hairline}`,
                  py: 0.375,
                  pr: 1,
                }}
              >
                <Box
                  component="span"
                  sx={{ fontFamily: figures, fontSize: 13, whiteSpace: "nowrap" }}
                >
                  {value}
                </Box>
                <Typography
                  variant="caption"
                  component="div"
                  title={typeof more === "string" ? more : undefined}
                  sx={{ minWidth: 0, overflow: "hidden", lineHeight: "15px" }}
                >
                  {more}
                </Typography>
              </Box>
            );
          })}
        </Box>
      ))}
    </Box>
  );
}

/** A share; the line through its end is as long as tubes make it stray, a deviation either way. */
function Bar({ share, off = 0 }: { share: number; off?: number }) {
  const from = Math.max(0, share - off);
  const says = off > 0 ? `${(100 * share).toFixed(0)} ± ${(100 * off).toFixed(0)} %` : undefined;
  return (
    <Box
      sx={{ position: "relative", height: 8, bgcolor: grey.track }}
      {...(says && { role: "img", "aria-label": says, title: says })}
    >
      <Box sx={{ height: 8, width: `${100 * share}%`, bgcolor: grey.ink }} />
      {off > 0 && (
        <Box
          sx={{
            position: "absolute",
            top: 3,
            height: 2,
            left: `${100 * from}%`,
            width: `${100 * (Math.min(1, share + off) - from)}%`,
            bgcolor: grey.mark,
          }}
        />
      )}
    </Box>
  );
}

function Two({ colours, title }: { colours: [string, string]; title: string }) {
  return (
    <svg width="100%" height={16} role="img" aria-label={title} style={{ display: "block" }}>
      <title>{title}</title>
      <rect width="50%" height={16} fill={colours[0]} />
      <rect x="50%" width="50%" height={16} fill={colours[1]} />
    </svg>
  );
}
