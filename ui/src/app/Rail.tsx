import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { useEffect, useLayoutEffect } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { figures, grey, phoneRail } from "../drawing/style";
import { typing } from "../parts/keys";

/** The places in the order of work. */
export const places = [
  { word: "Box", path: "/box" },
  { word: "System", path: "/system" },
  { word: "Wheel", path: "/wheel" },
  { word: "Pairings", path: "/pairings" },
  { word: "Path", path: "/path" },
  { word: "Compare", path: "/compare" },
  { word: "Bench", path: "/bench" },
  { word: "Log", path: "/log" },
] as const;

/** The present place, and the way to each: the places of one kept system lie side by side. */
export function usePlaces() {
  const { pathname } = useLocation();
  const present = places.findLastIndex((p) => pathname.startsWith(p.path));
  const [, kept] = /^\/(?:system|wheel|pairings|path|bench)\/(\d+)/.exec(pathname) ?? [];
  const pathOf = (path: string) =>
    kept && path !== "/box" && path !== "/compare" && path !== "/log" ? `${path}/${kept}` : path;
  return { present: pathname === "/begin" ? 1 : present, pathOf, pathname };
}

/** Number keys go to the places. Before the page is seen: a key pressed at once is not lost. */
export function usePlaceKeys() {
  const { pathOf, pathname } = usePlaces();
  const navigate = useNavigate();
  useEffect(() => {
    void window.scrollTo(0, 0); // newer browsers answer with a promise
  }, [pathname]);
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const place = places[Number(e.key) - 1];
      if (place && !typing(e)) void navigate(pathOf(place.path));
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
}

const pitch = 84;

/** A thread along a line that swells where something stands; nowhere below 0. */
function thread(along: (at: number, out: number) => string, at: number, end: number, bend: number) {
  const edge = (y: number) => 0.6 + (at < 0 ? 0 : 4 * Math.exp(-(((y - at) / 30) ** 2)));
  let d = `M${along(0, -0.6)}`;
  for (let y = 0; y <= bend; y += 4) d += ` L${along(y, -edge(y))}`;
  d += ` L${along(end, -0.6)} L${along(end, 0.6)}`;
  for (let y = bend; y >= 0; y -= 4) d += ` L${along(y, edge(y))}`;
  return `${d} Z`;
}

/** The rail of a desk: a thread that swells at the present place. */
export function Rail() {
  const { present, pathOf } = usePlaces();
  const height = 4000;
  const down = (y: number, out: number) => `${(87 + out).toFixed(2)} ${y}`;
  return (
    <Box
      component="nav"
      aria-label="places"
      sx={{ width: 92, flex: "none", position: "relative", overflow: "hidden" }}
    >
      <svg
        width={92}
        height={height}
        viewBox={`0 0 92 ${height}`}
        aria-hidden
        style={{ position: "absolute", top: 0, left: 0, pointerEvents: "none" }}
      >
        <path
          d={thread(down, present < 0 ? -1 : 34 + pitch * present, height, 800)}
          fill={grey.ink}
        />
      </svg>
      {places.map((p, i) => (
        <ButtonBase
          key={p.word}
          component={Link}
          to={pathOf(p.path)}
          aria-current={i === present ? "page" : undefined}
          sx={{
            position: "absolute",
            left: 0,
            top: 6 + pitch * i,
            width: 82,
            height: 56,
            display: "block",
            pl: 1.5,
            pt: 0.75,
            textAlign: "left",
            fontSize: 15,
            lineHeight: "20px",
            fontWeight: i === present ? 600 : 400,
            "&:hover": { bgcolor: grey.track },
          }}
        >
          <Box
            component="span"
            sx={{
              display: "block",
              fontFamily: figures,
              fontSize: 12,
              lineHeight: "16px",
              color: grey.third,
              fontWeight: 400,
            }}
          >
            {i + 1}
          </Box>
          {p.word}
        </ButtonBase>
      ))}
    </Box>
  );
}

/** The places a thumb comes to most; the others are behind "more". */
const near = ["/box", "/wheel", "/pairings", "/bench", "/log"];
export const behind = places.filter((p) => !near.includes(p.path));

/** The rail of a phone: five places within the thumb's reach, and what is behind them. */
export function PhoneRail({
  lying,
  under,
  onMore,
}: {
  lying: boolean;
  /** What stands under the word of the bench: how far a sitting has come, and the way to it. */
  under?: { says: string; to: string };
  onMore: () => void;
}) {
  const { present, pathOf } = usePlaces();
  const shown = places.filter((p) => near.includes(p.path));
  const at = shown.findIndex((p) => p === places[present]);
  const now = at >= 0 ? at : present >= 0 ? shown.length : -1;
  const n = shown.length + 1;
  const each = { flex: 1, minWidth: 48, minHeight: 48, flexDirection: "column", fontSize: 14 };
  const look = (i: number) => ({ ...each, fontWeight: i === now ? 600 : 400, lineHeight: "18px" });
  return (
    <Box
      component="nav"
      aria-label="places"
      sx={{
        position: "fixed",
        zIndex: 5,
        bgcolor: grey.paper,
        display: "flex",
        ...(lying
          ? { top: 0, bottom: 0, left: 0, width: phoneRail.wide, flexDirection: "column", pr: 1 }
          : {
              left: 0,
              right: 0,
              bottom: 0,
              minHeight: phoneRail.high,
              pb: "env(safe-area-inset-bottom)",
              pt: "5px",
            }),
      }}
    >
      <Swelling lying={lying} at={now} of={n} />
      {shown.map((p, i) => {
        const going = p.path === "/bench" ? under : undefined;
        return (
          <ButtonBase
            key={p.word}
            component={Link}
            to={going?.to ?? pathOf(p.path)}
            aria-current={i === now ? "page" : undefined}
            sx={look(i)}
          >
            {p.word}
            {going && (
              <Box component="span" sx={{ fontSize: 12, lineHeight: "14px", fontWeight: 400 }}>
                {going.says}
              </Box>
            )}
          </ButtonBase>
        );
      })}
      <ButtonBase aria-haspopup="dialog" onClick={onMore} sx={look(n - 1)}>
        more
      </ButtonBase>
    </Box>
  );
}

/** The thread over or beside the rail of a phone. */
function Swelling({ lying, at, of }: { lying: boolean; at: number; of: number }) {
  const long = 600;
  const place = at < 0 ? -1 : ((at + 0.5) * long) / of;
  const d = lying
    ? thread((y, out) => `${(5 + out).toFixed(2)} ${y}`, place, long, long)
    : thread((x, out) => `${x} ${(5 + out).toFixed(2)}`, place, long, long);
  return (
    <svg
      viewBox={lying ? `0 0 10 ${long}` : `0 0 ${long} 10`}
      preserveAspectRatio="none"
      width={lying ? 10 : "100%"}
      height={lying ? "100%" : 10}
      aria-hidden
      style={{
        position: "absolute",
        pointerEvents: "none",
        ...(lying ? { right: 0, top: 0 } : { top: -5, left: 0 }),
      }}
    >
      <path d={d} fill={grey.ink} />
    </svg>
  );
}
