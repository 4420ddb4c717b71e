import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { expectationsQuery } from "../api/queries";
import { figures, grey } from "../drawing/style";

/** What became of what was expected, month by month, and where the eye is right. */
export function Eye() {
  const all = useQuery(expectationsQuery);
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
