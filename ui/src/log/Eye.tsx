import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { expectationsQuery } from "../api/queries";
import { Drop } from "../drawing/Marks";
import { figures, grey } from "../drawing/style";
import { day } from "./words";

/** What became of what was expected, month by month, and where the eye is right. */
export function Eye() {
  const all = useQuery(expectationsQuery);
  const [open, setOpen] = useState(false);
  const got = all.data;
  if (!got) return null;
  if (got.months.length === 0)
    return (
      <Typography variant="body2">
        Nothing was expected yet: cover a wheel, say what you expect, and lift the cover.
      </Typography>
    );
  return (
    <>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {got.sections.map((s) => (
          <Box component="li" key={s.section} sx={{ display: "flex", gap: 1.5, py: 0.25 }}>
            <Typography sx={{ width: 110, flex: "none" }}>{s.section}</Typography>
            <Typography variant="body2" sx={{ pt: "2px" }}>
              {s.says}
            </Typography>
          </Box>
        ))}
      </Box>
      <Months months={got.months.slice(0, 6)} />
      {got.working && (
        <Typography variant="caption" component="p">
          Sittings are still being looked at: what was painted counts when that is done.
        </Typography>
      )}
      <Button
        color="inherit"
        size="small"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        sx={{ ml: "-5px", mt: 1 }}
      >
        {open ? "leave them folded" : "each of them"}
      </Button>
      {open && <Each of={got.each} />}
    </>
  );
}

/** Expectations one by one, the newest first: what was said, and what came. */
function Each({ of }: { of: Schemas["Became"][] }) {
  return (
    <Box
      component="ol"
      aria-label="each expectation"
      sx={{ m: 0, p: 0, listStyle: "none", maxHeight: 320, overflowY: "auto" }}
    >
      {of.map((b, i) => (
        <Box
          component="li"
          key={i}
          sx={{ borderTop: `1px solid ${grey.hairline}`, py: 0.75, overflowWrap: "anywhere" }}
        >
          <Typography variant="body2">
            <b>{b.of}</b>, {day(b.at)}
            {b.practice && ", in practice"}
          </Typography>
          <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, flexWrap: "wrap" }}>
            <Said verdict={b.said} hue={b.hueSaid} />
            <Typography variant="caption">
              {b.hueRight && b.verdictRight ? "and so it came" : "came"}
              {b.painted ? ", as painted" : ", as computed"}
            </Typography>
            {!(b.hueRight && b.verdictRight) && <Said verdict={b.came} hue={b.hueCame} />}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function Said({ verdict, hue }: { verdict: Schemas["Verdict"]; hue: string }) {
  return (
    <>
      <Drop verdict={verdict} height={14} />
      <Typography variant="body2">
        {hue}, {verdict}
      </Typography>
    </>
  );
}

function Months({ months }: { months: Schemas["ExpectedMonth"][] }) {
  const share = (n: number, of: number) => (of > 0 ? n / of : 0);
  return (
    <Box
      role="table"
      aria-label="expectations by month"
      sx={{
        mt: 1,
        "& [role=row]": {
          display: "grid",
          gridTemplateColumns: "minmax(0, 110px) minmax(0, 1fr) minmax(0, 1fr)",
          gap: 1,
        },
      }}
    >
      <Box role="row" sx={{ color: grey.third, fontSize: 13 }}>
        <span role="columnheader">month</span>
        <span role="columnheader">hues right</span>
        <span role="columnheader">brightness right</span>
      </Box>
      {months.map((m) => (
        <Box role="row" key={`${m.year}-${m.month}`} sx={{ alignItems: "center", minHeight: 28 }}>
          <Typography role="rowheader" variant="body2">
            {new Date(m.year, m.month - 1).toLocaleDateString("en-GB", {
              month: "long",
              year: "numeric",
            })}
          </Typography>
          {[m.huesRight, m.verdictsRight].map((n, k) => (
            <Box role="cell" key={k} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Box
                aria-hidden
                sx={{
                  width: 56,
                  height: 5,
                  display: { xs: "none", sm: "block" },
                  bgcolor: grey.track,
                  flex: "none",
                }}
              >
                <Box
                  sx={{
                    width: `${100 * share(n, m.expectations)}%`,
                    height: 5,
                    bgcolor: grey.ink,
                  }}
                />
              </Box>
              <Typography variant="caption" sx={{ fontFamily: figures, whiteSpace: "nowrap" }}>
                {n} of {m.expectations}
              </Typography>
            </Box>
          ))}
        </Box>
      ))}
    </Box>
  );
}
