import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { edgesQuery } from "../api/queries";
import { useColours } from "../drawing/screen";
import { figures, grey } from "../drawing/style";
import type { Thing } from "./holding";
import { Tabs } from "./Tabs";
import { usePhone } from "./usePhone";
import { Value } from "./Value";

const ways = { as: "as they are", one: "at one value" } as const;

type Pair = Schemas["EdgePair"];

/** Two things edge to edge, and what differs in words. */
export function EdgeToEdge({
  here,
  held,
  onClose,
}: {
  here: Thing;
  held: Thing;
  onClose: () => void;
}) {
  const { phone } = usePhone();
  const [way, setWay] = useState<keyof typeof ways>("as");
  const [at, setAt] = useState(0);
  const got = useQuery(edgesQuery(here.row, held.row, here.view, way === "one"));
  const pairs = got.data?.pairs ?? [];
  const chosen = pairs[Math.min(at, pairs.length - 1)];
  return (
    <Dialog
      open
      onClose={onClose}
      fullScreen={phone}
      fullWidth
      maxWidth="md"
      aria-label="edge to edge"
      slotProps={{
        backdrop: { sx: { bgcolor: grey.paper, opacity: "0.9 !important" } }, // nothing dark beside paint
        paper: { sx: { border: `1px solid ${grey.ink}`, p: { xs: 2, sm: 3 } } },
      }}
    >
      <Typography variant="h2" sx={{ overflowWrap: "anywhere" }}>
        {here.name}, beside {held.name}
      </Typography>
      <Tabs label="held beside" words={ways} value={way} onChoose={setWay} />
      {got.error && (
        <Typography role="alert" sx={{ mt: 2 }}>
          {got.error.message}
        </Typography>
      )}
      {got.data && chosen && (
        <>
          <Typography
            aria-label="what differs"
            sx={{
              fontSize: 18,
              lineHeight: "26px",
              mt: 1,
              "&::first-letter": { textTransform: "uppercase" },
            }}
          >
            {got.data.says}.
          </Typography>
          {way === "one" && got.data.unraised > 0 && (
            <Typography variant="caption" component="p">
              {got.data.unraised === pairs.length ? "These stay" : `${got.data.unraised} stay`} as
              they are: read and not mixed, or white does not bring them there.
            </Typography>
          )}
          <Edges pairs={pairs} at={pairs.indexOf(chosen)} onAt={setAt} />
          <Sides pair={chosen} one={pairs.length === 1} />
        </>
      )}
      <Box sx={{ mt: 2 }}>
        <Button variant="outlined" color="inherit" onClick={onClose}>
          done
        </Button>
      </Box>
    </Dialog>
  );
}

/** The rows, butted: of one colour each left and right, of several one above the other. */
function Edges({ pairs, at, onAt }: { pairs: Pair[]; at: number; onAt: (at: number) => void }) {
  const { fill } = useColours();
  if (pairs.length === 1) {
    const { one, other } = pairs[0]!;
    return (
      <Box sx={{ display: "flex", height: 200, mt: 1.5 }} data-edges>
        <Box sx={{ flex: 1, bgcolor: fill(one) }} />
        <Box sx={{ flex: 1, bgcolor: fill(other) }} />
      </Box>
    );
  }
  return (
    <Box sx={{ display: "flex", height: 176, mt: 1.5 }} data-edges>
      {pairs.map((p, i) => (
        <Box
          key={i}
          component="button"
          type="button"
          aria-pressed={i === at}
          aria-label={`${p.one.name} beside ${p.other.name}: ${p.says}`}
          onClick={() => onAt(i)}
          sx={{
            flex: 1,
            minWidth: "0 !important",
            p: 0,
            border: 0,
            bgcolor: "transparent",
            cursor: "pointer",
            display: "flex",
            flexDirection: "column",
          }}
        >
          <Box sx={{ flex: 1, width: 1, bgcolor: fill(p.one) }} />
          <Box sx={{ flex: 1, width: 1, bgcolor: fill(p.other) }} />
          <Box sx={{ height: 6, width: 1, bgcolor: i === at ? grey.ink : "transparent" }} />
        </Box>
      ))}
    </Box>
  );
}

/** What stands on either side of one edge. */
function Sides({ pair, one }: { pair: Pair; one: boolean }) {
  return (
    <>
      <Box sx={{ display: "flex", gap: 2, mt: 1 }}>
        {[pair.one, pair.other].map((s, i) => (
          <Box key={i} sx={{ flex: 1, minWidth: 0 }}>
            <Typography sx={{ fontWeight: 500, overflowWrap: "anywhere" }}>{s.name}</Typography>
            <Typography variant="body2">
              {s.words} · <Value of={s} />
            </Typography>
            {s.white > 0 && (
              <Typography variant="body2">
                raised with {Number(s.white.toPrecision(2))} {s.white === 1 ? "part" : "parts"} of
                white to 1
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      <Typography sx={{ mt: 1 }}>
        {!one && `${pair.says}. `}
        <span style={{ fontFamily: figures, fontSize: 12, color: grey.third }}>
          CIEDE2000 {pair.de00.toFixed(1)}
        </span>
      </Typography>
    </>
  );
}
