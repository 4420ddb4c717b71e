import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import type { Profile } from "../api/client";
import { compareQuery, wheelsQuery } from "../api/queries";
import { Choice } from "../parts/Choice";
import { kindWords } from "../parts/choices";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { joined, listIn, relisted, useAddress, without } from "../parts/useAddress";
import { useView } from "../parts/useView";
import { Waiting } from "../parts/Waiting";
import { Tabs } from "../parts/Tabs";
import { ChooseView } from "./ChooseView";
import { AtHue } from "./AtHue";
import { Differs } from "./Differs";
import { Figures } from "./Figures";
import { Gyre } from "./Gyre";
import { KeptComparisons } from "./KeptComparisons";
import { LineMark, Tubes } from "./Marks";
import { Overlay } from "./Overlay";
import { columnsOf, outlines, type Compared, type Comparison } from "./shapes";
import { StepsView } from "./StepsView";
import { WantedStrip } from "./WantedStrip";
import { Word } from "../parts/Word";
import { AtHand, wheelThing } from "../parts/holding";

const views = {
  reach: "how far they reach",
  steps: "step beside step",
  choose: "choose from my box",
} as const;
const most = outlines.length;
const titles: Record<number, string> = {
  1: "One system",
  2: "Two systems compared",
  3: "Three systems compared",
  4: "Four systems compared",
};

/** Two to four systems on the same footing. */
export function ComparePlace({ painter }: { painter: Profile }) {
  const { view, show } = useView();
  const { search, one } = useAddress();
  const look = one<keyof typeof views>("show", views, "reach");
  const wheels = useQuery(wheelsQuery);
  const kept = (wheels.data ?? []).filter((w) => !w.archived);
  const asked = listIn(search, "systems")
    ?.map(Number)
    .filter((id) => Number.isInteger(id) && id > 0);
  // Of what was kept once the wheels that were deleted since are left out.
  const there = asked?.filter((id) => wheels.data?.some((w) => w.id === id));
  const all = there?.length ? there : asked;
  const ids = (all ?? kept.map((w) => w.id).sort((a, b) => a - b)).slice(0, most);
  const compared = useQuery(compareQuery(ids, view));
  const change = (how: (now: string[]) => string[]) =>
    show(relisted("systems", how, ids.map(String)));
  if (!wheels.data) return <Waiting failing={wheels.failureCount > 0} />;
  const got = compared.error ? undefined : compared.data;
  const more = kept.filter((w) => !ids.includes(w.id));
  return (
    <Shell painter={painter} title="Systems side by side" viewed={{ view: view, onSet: show }}>
      <AtHand
        things={(got?.systems ?? []).map((s, i) => wheelThing(s.name, ids[i]!, s.slots, view))}
      />
      {look !== "choose" && got && (
        <>
          <Typography variant="h2">{titles[got.systems.length] ?? "Systems compared"}</Typography>
          <Typography sx={{ fontSize: 18, lineHeight: "26px", maxWidth: 1120 }}>
            {got.decides}
          </Typography>
        </>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 4, alignItems: "center" }}>
        <Tabs
          label="laid beside each other by"
          words={views}
          value={look}
          onChoose={(v) => show({ show: v === "reach" ? undefined : v })}
        />
        {look !== "choose" && more.length > 0 && ids.length < most && (
          <Choice label="lay another system beside them" shown={<span>another system</span>}>
            {(close) =>
              more.map((w) => (
                <MenuItem
                  key={w.id}
                  onClick={() => {
                    close();
                    change(joined(String(w.id)));
                  }}
                >
                  {w.name}
                </MenuItem>
              ))
            }
          </Choice>
        )}
      </Box>
      {look === "choose" ? (
        <ChooseView view={view} />
      ) : (
        <>
          {compared.error && <Typography role="alert">{compared.error.message}</Typography>}
          {ids.length === 0 && (
            <Typography sx={{ mt: 3 }}>
              No system is laid here. Keep one first: <To to="/begin">begin a wheel</To>, or{" "}
              <To to="/compare?show=choose">choose the best one from your box</To>.
            </Typography>
          )}
          {got && got.systems.length === ids.length && (
            <Box sx={{ opacity: compared.isPlaceholderData ? 0.5 : 1 }}>
              {look === "reach" ? (
                <ReachView got={got} ids={ids} onTakeOff={(id) => change(without(String(id)))} />
              ) : (
                <StepsView got={got} />
              )}
              {look === "reach" && (
                <WantedStrip wheels={ids} view={view} names={got.systems.map((s) => s.name)} />
              )}
            </Box>
          )}
          {/* Below what is compared: before that has come it would move from under the hand. */}
          {ids.length > 0 && (got ?? compared.error) && (
            <KeptComparisons address={addressOf(search, ids)} wheels={ids} view={view} />
          )}
        </>
      )}
    </Shell>
  );
}

/** What reopens this picture: the systems by name even where the address left them out. */
function addressOf(search: URLSearchParams, ids: number[]): string {
  const all = new URLSearchParams(search);
  all.set("systems", ids.join(","));
  return all.toString();
}

function ReachView({
  got,
  ids,
  onTakeOff,
}: {
  got: Comparison;
  ids: number[];
  onTakeOff: (id: number) => void;
}) {
  const [bin, setBin] = useState(23); // yellow
  const [forward, setForward] = useState<number | null>(null);
  const { search, show } = useAddress();
  const pair = Number(search.get("pair")) || 0;
  const band = search.get("band") === "on";
  return (
    <>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 400px) minmax(0, 1fr)" },
          gap: 3,
          mt: 1,
        }}
      >
        <Box>
          <Overlay got={got} bin={bin} forward={forward} pair={pair} onBin={setBin} />
          <AtHue
            got={got}
            bin={bin}
            says={
              <>
                <Word of="reach" /> at {got.hues[bin]}; a ring can be laid <Word of="forward" />
              </>
            }
          />
          <Differs
            got={got}
            pair={pair}
            onPair={(to) => show({ pair: to ? String(to) : undefined })}
          />
          {got.systems.length > 1 && (
            <Box
              aria-label="each of them"
              sx={{ borderTop: `1px solid ${grey.hairline}`, mt: 0.5 }}
            >
              {got.systems.map((s, i) => (
                <Typography key={i} variant="body2" sx={{ mt: 0.5 }}>
                  {s.says}
                </Typography>
              ))}
            </Box>
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box
            sx={{
              display: "grid",
              gridTemplateColumns: columnsOf(got.systems.length),
              mb: 1,
            }}
          >
            <Box sx={{ alignSelf: "end", pb: 5, minWidth: 0 }}>
              <Button
                size="small"
                color="inherit"
                aria-pressed={band}
                onClick={() => show({ band: band ? undefined : "on" })}
                sx={{ minWidth: 0, fontWeight: 400, textAlign: "left" }}
              >
                how sure
              </Button>
              {band && (
                <Typography variant="caption" component="p" sx={{ px: 0.5 }}>
                  grey: where two in three sets of tubes come to
                </Typography>
              )}
            </Box>
            {got.systems.map((s, i) => (
              <Box
                key={i}
                sx={{ pr: 1.5, textAlign: "center", minWidth: 0 }}
                onMouseEnter={() => setForward(i)}
                onMouseLeave={() => setForward(null)}
              >
                <LineMark index={i} />
                <Head system={s} id={ids[i]!} />
                <Gyre system={s} index={i} clean={got.cleanFrom} band={band} />
                <Button
                  size="small"
                  color="inherit"
                  aria-label={`bring ${s.name} forward`}
                  aria-pressed={forward === i}
                  onFocus={() => setForward(i)}
                  onBlur={() => setForward(null)}
                  sx={{ minWidth: 0, fontWeight: 400 }}
                >
                  forward
                </Button>
                {ids.length > 1 && (
                  <Button
                    size="small"
                    color="inherit"
                    aria-label={`take off ${s.name}`}
                    onClick={() => onTakeOff(ids[i]!)}
                    sx={{ minWidth: 0, fontWeight: 400 }}
                  >
                    take off
                  </Button>
                )}
              </Box>
            ))}
          </Box>
          <Figures got={got} />
        </Box>
      </Box>
    </>
  );
}

function Head({ system, id }: { system: Compared; id: number }) {
  const kind = kindWords[system.kind as keyof typeof kindWords];
  return (
    <Box sx={{ mb: 0.5 }}>
      <Typography
        component={To}
        to={`/wheel/${id}`}
        variant="subtitle2"
        sx={{
          color: grey.ink,
          display: "block",
          overflow: "hidden",
          overflowWrap: "anywhere",
          textDecoration: "none",
          minHeight: { xs: 48, md: 40 },
          maxHeight: 60,
          lineHeight: "20px",
          "&:hover": { bgcolor: grey.track },
        }}
        title={system.name}
      >
        {system.name}
      </Typography>
      <Typography variant="caption" component="p">
        {kind?.name}
      </Typography>
      <Tubes paints={system.paints} />
    </Box>
  );
}
