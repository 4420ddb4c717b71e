import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Schemas } from "../api/client";
import type { Tally } from "../api/together";
import { Drop } from "../drawing/Marks";
import { Ribbon } from "../drawing/Ribbon";
import { figures, grey } from "../drawing/style";
import { mudWords } from "../parts/Expect";
import { drops } from "./GuessDisk";

type Truth = Schemas["ClassTruth"];

/** How many said each drop. */
export function DropsSaid({ tally, truth, big }: { tally: Tally; truth: Truth; big?: boolean }) {
  const most = Math.max(1, ...tally.verdicts);
  return (
    <Box
      role="list"
      aria-label="how bright it was said to stay"
      sx={{ display: "grid", gap: big ? 1 : 0.5 }}
    >
      {drops.map((drop, k) => (
        <Box
          role="listitem"
          key={drop}
          aria-label={`${drop}: ${tally.verdicts[k]}`}
          sx={{ display: "flex", alignItems: "center", gap: 1.25, fontSize: big ? 20 : 15 }}
        >
          <Drop verdict={drop} height={big ? 30 : 20} />
          <Box
            component="span"
            sx={{ width: big ? 96 : 72, fontWeight: truth.right.verdicts[k] ? 600 : 400 }}
          >
            {drop}
          </Box>
          <Box sx={{ flex: 1, height: big ? 18 : 12 }}>
            <Box
              sx={{
                height: 1,
                width: `${(100 * tally.verdicts[k]!) / most}%`,
                bgcolor: truth.right.verdicts[k] ? grey.ink : grey.mark,
              }}
            />
          </Box>
          <Box component="span" sx={{ width: 36, textAlign: "right", fontFamily: figures }}>
            {tally.verdicts[k]}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** The way without its cover and, above it, how many said that the mud starts where. */
export function MudSaid({
  tally,
  truth,
  band,
  height,
  said,
}: {
  tally: Tally;
  truth: Truth;
  band: Schemas["BandPoint"][];
  height: number;
  /** What one phone said. */
  said?: Schemas["MudStart"];
}) {
  const most = Math.max(1, ...tally.mud);
  const high = height * 0.6;
  const places = tally.mud.length - 1;
  return (
    <Box>
      <svg
        width="100%"
        height={high}
        viewBox={`0 0 ${places} 100`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`where the mud was said to start; ${tally.noMud} said nowhere`}
        style={{ display: "block", overflow: "visible" }}
      >
        {tally.mud.map((n, at) => (
          <rect
            key={at}
            x={at - 0.38}
            width={0.76}
            y={100 - (100 * n) / most}
            height={(100 * n) / most}
            fill={truth.right.mud[at] ? grey.ink : grey.mark}
          />
        ))}
      </svg>
      <Box sx={{ position: "relative", borderTop: `1px solid ${grey.ink}` }}>
        <Ribbon band={band} height={height} />
        {truth.begins && (
          <Box
            aria-hidden
            sx={{
              position: "absolute",
              top: 0,
              height,
              left: `${100 * truth.begins[0]!}%`,
              width: `${100 * (truth.begins[1]! - truth.begins[0]!)}%`,
              border: `2px dotted ${grey.ink}`,
              borderWidth: "0 2px",
            }}
          />
        )}
        {!truth.mud.nowhere && <Line at={truth.mud.at} height={height} />}
        {said && !said.nowhere && <Line at={said.at} height={height} mine />}
      </Box>
      <Typography variant="caption" component="p">
        {truth.mud.nowhere ? "it never turns muddy" : "from the line on it is muddy"}
        {" · "}
        {tally.noMud} said that it never does
      </Typography>
    </Box>
  );
}

/** Where the mud starts; or, dashed, where this phone said that it does. */
function Line({ at, height, mine }: { at: number; height: number; mine?: boolean }) {
  return (
    <Box
      aria-hidden
      sx={{
        position: "absolute",
        top: mine ? -6 : 0,
        height: mine ? height + 12 : height,
        left: `calc(${100 * at}% - 1px)`,
        borderLeft: `2px ${mine ? "dashed" : "solid"} ${grey.ink}`,
      }}
    />
  );
}

/** What it is, in a sentence. */
export function ItIs({ truth, from, to }: { truth: Truth; from: string; to: string }) {
  return (
    <>
      It is <b>{truth.hueWord}</b>, <b>{truth.couldBe?.join(" or ") ?? truth.verdict}</b>
      {truth.couldBe ? ": in tubes as they differ it may go either way" : ""};{" "}
      {mudWords(truth.mud, from, to)}.
    </>
  );
}
