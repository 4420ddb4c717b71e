import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import { Drop } from "../drawing/Marks";
import { useColours } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import { value } from "../drawing/value";
import { VisuallyHidden } from "../parts/VisuallyHidden";

type Place = Schemas["JournalPlace"];

/** How wide the columns are: what nothing was expected of has none for that. */
const columns = (expected: boolean, many: boolean) => ({
  xs: "64px 48px minmax(0, 1fr)",
  sm: `${many ? 176 : expected ? 124 : 140}px ${expected ? "96px " : ""}${many ? 150 : 186}px minmax(0, 1fr)`,
});

/** From so many places on the rows are low, so that all are seen at once. */
const manyPlaces = 14;

/** Each place of a sitting: expected, computed, read wet and dry edge to edge, and what came of it. */
export function Places({ of }: { of: Place[] }) {
  const expected = of.some((p) => p.expected);
  const many = of.length > manyPlaces;
  const chips = ["computed", ...(of.some((p) => p.wet) ? ["wet"] : []), "dry"];
  return (
    <Box
      role="table"
      aria-label="places"
      sx={{
        mt: 1,
        "& [role=row]": {
          display: "grid",
          gridTemplateColumns: columns(expected, many),
          alignItems: "center",
          columnGap: 1.5,
        },
      }}
    >
      <Box
        role="row"
        sx={{ borderBottom: `2px solid ${grey.ink}`, color: grey.third, fontSize: 13, pb: 0.5 }}
      >
        <span role="columnheader">place</span>
        {expected && (
          <Box role="columnheader" sx={{ display: { xs: "none", sm: "block" } }}>
            expected
          </Box>
        )}
        <Box role="columnheader" sx={{ display: "flex", position: "relative" }}>
          <VisuallyHidden>colours:</VisuallyHidden>
          {chips.map((w) => (
            <Box
              component="span"
              key={w}
              sx={{ flex: 1, fontSize: 12, display: { xs: "none", sm: "inline" } }}
            >
              {w}
            </Box>
          ))}
        </Box>
        <span role="columnheader">what came of it</span>
      </Box>
      {of.map((p) => (
        <Row key={p.slot} place={p} expected={expected} many={many} />
      ))}
    </Box>
  );
}

function Row({ place: p, expected, many }: { place: Place; expected: boolean; many: boolean }) {
  const { fill } = useColours();
  const odd = !!p.dry && !p.asComputed && !p.doubt;
  const [slot, paint] = p.label.split(", ");
  return (
    <Box role="row" data-place={p.slot} sx={{ minHeight: many ? 26 : 36, py: many ? 0 : "1px" }}>
      <Box
        role="rowheader"
        title={p.label}
        sx={{
          minWidth: 0,
          lineHeight: "16px",
          ...(many && { display: { sm: "flex" }, alignItems: "baseline", gap: 0.75 }),
        }}
      >
        <Typography
          noWrap={!!paint}
          sx={{
            fontWeight: odd ? 600 : 400,
            fontSize: slot!.length > 16 || many ? 13 : 15,
            flex: "none",
            maxWidth: 1,
            lineHeight: "17px",
          }}
        >
          {slot}
        </Typography>
        {paint && (
          <Typography noWrap variant="caption" component="p" sx={{ lineHeight: "15px" }}>
            {paint}
          </Typography>
        )}
      </Box>
      {expected && (
        <Box role="cell" sx={{ display: { xs: "none", sm: "block" }, minWidth: 0 }}>
          {p.expected && <Expected of={p.expected} slot={p.label} />}
        </Box>
      )}
      <Box role="cell" sx={{ display: "flex", height: many ? 25 : 34 }}>
        {[p.computed, p.wet, p.dry].map(
          (c, k) =>
            c && <Box key={k} title={`value ${value(c)}`} sx={{ flex: 1, bgcolor: fill(c) }} />,
        )}
      </Box>
      <Box role="cell" sx={{ display: "flex", gap: 1.5, alignItems: "center", minWidth: 0 }}>
        <Box
          aria-hidden
          sx={{
            flex: "none",
            width: 4,
            height: Math.min(28, 3 + 2 * p.difference),
            bgcolor: odd ? grey.ink : grey.mark,
          }}
        />
        <Box
          title={p.dries && `it dried ${p.dries}`}
          sx={{ minWidth: 0, overflowWrap: "anywhere" }}
        >
          <Typography
            sx={{
              fontSize: many ? 13 : 15,
              lineHeight: many ? "15px" : "19px",
              color: odd ? grey.ink : grey.second,
            }}
          >
            {p.came}
          </Typography>
        </Box>
        {p.dry && (
          <Typography
            variant="caption"
            sx={{
              fontFamily: figures,
              ml: "auto",
              flex: "none",
              display: { xs: "none", sm: "block" },
            }}
            title="CIEDE2000"
          >
            {p.difference.toFixed(1)}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

/** What was expected, crossed out where it came out otherwise. */
function Expected({ of: e, slot }: { of: Schemas["SlotExpectation"]; slot: string }) {
  const failed = !e.hueRight || !e.verdictRight;
  const came = e.painted || e.computed;
  return (
    <Box
      data-failed={failed}
      title={`expected ${e.hueWord}, ${e.verdict}; ${e.painted ? "painted" : "computed"} ${came}`}
      sx={{ display: "flex", alignItems: "center", gap: 0.75, minWidth: 0 }}
    >
      <Box sx={{ flex: "none", lineHeight: 0 }}>
        <Drop verdict={e.verdict} height={16} />
      </Box>
      <Box sx={{ minWidth: 0, fontSize: 13, lineHeight: "15px", color: grey.second }}>
        <Box component="span" sx={{ textDecoration: e.verdictRight ? "none" : "line-through" }}>
          {e.verdict}
        </Box>
        {e.hueWord !== slot && (
          <Box
            component="span"
            sx={{ display: "block", textDecoration: e.hueRight ? "none" : "line-through" }}
          >
            {e.hueWord}
          </Box>
        )}
        {failed && (
          <Box component="span" sx={{ display: "block", fontWeight: 600, color: grey.ink }}>
            {came}
          </Box>
        )}
      </Box>
    </Box>
  );
}
