import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import MenuItem from "@mui/material/MenuItem";
import { styled } from "@mui/material/styles";
import visuallyHidden from "@mui/utils/visuallyHidden";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useLayoutEffect, useState, type ReactNode } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { client, type Profile } from "../api/client";
import { sessionQuery, useReady } from "../api/queries";
import { Mark } from "../drawing/Marks";
import { Choice } from "../parts/Choice";
import { outbox } from "../api/waiting";
import { Aside, BeforeLeaving } from "./WaitingHere";
import { PassphraseDialog } from "./PassphraseDialog";
import { SessionsDialog } from "./SessionsDialog";
import { SurroundChoice } from "./surround";
import { UnderWay, useUnderWay } from "./UnderWay";
import { FirstMinute, useFirstMinute } from "./FirstMinute";
import { typing } from "./keys";
import { figures, grey } from "../drawing/style";

const Bar = styled("header")({
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  columnGap: 8,
  minHeight: 48,
  padding: "0 24px 0 12px",
  borderBottom: `1px solid ${grey.hairline}`,
});

/** The frame around a place: bar, rail, foot. `conditions` fills the bar; the title is for those who hear the page. */
export function Shell({
  painter,
  conditions,
  notice,
  title,
  children,
}: {
  painter: Profile;
  title: string;
  conditions?: ReactNode;
  notice?: ReactNode;
  children: ReactNode;
}) {
  const ready = useReady();
  const firstMinute = useFirstMinute();
  const underWay = useUnderWay();
  const minute = painter.demo && firstMinute.shown;
  useEffect(() => {
    if (ready.data) outbox.wake();
  }, [ready.data]);
  return (
    <Box
      sx={{
        minHeight: "100vh",
        display: "flex",
        flexDirection: "column",
        "--strip": minute ? "41px" : "0px",
      }}
    >
      <Bar>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1, mr: 1 }}>
          <Mark />
          <Typography
            component="span"
            sx={{
              fontSize: 16,
              fontWeight: 600,
              // A sitting that is under way needs the room.
              ...(underWay && { display: { xs: "none", xl: "inline" } }),
            }}
          >
            Gyrophane
          </Typography>
        </Box>
        {conditions}
        <Box sx={{ flex: 1 }} />
        <UnderWay />
        <SurroundChoice />
        <PainterMenu painter={painter} />
      </Bar>
      {minute && <FirstMinute />}
      {ready.data === false && (
        <Notice>
          The server or its database does not answer. Nothing is lost: what you change is kept here
          and saved when it is back.
        </Notice>
      )}
      {notice}
      <Aside />
      <Box sx={{ flex: 1, display: "flex", minHeight: 0 }}>
        <Rail />
        <Box component="main" sx={{ flex: 1, minWidth: 0, p: "16px 24px 8px" }}>
          <Typography component="h1" sx={visuallyHidden}>
            {title}
          </Typography>
          {children}
        </Box>
      </Box>
      <Box
        component="footer"
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 3,
          p: "4px 24px 8px 116px",
          color: grey.third,
          fontSize: 12,
          lineHeight: "16px",
        }}
      >
        <span>
          A screen is not paint: test on paper. Paints are modelled from their pigment class, not
          from your tube.
        </span>
        <Box sx={{ flex: 1 }} />
        <span>
          <svg width={8} height={8} aria-hidden>
            <path d="M0 0 H8 V8 Z" fill={grey.third} />
          </svg>{" "}
          brighter in paint than this screen can show
        </span>
      </Box>
    </Box>
  );
}

/** A sentence across the page, above the place. */
export function Notice({ children }: { children: ReactNode }) {
  return (
    <Box
      role="status"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        gap: 2,
        p: "10px 24px 10px 116px",
        bgcolor: grey.ink,
        color: grey.paper,
        fontSize: 15,
        lineHeight: "20px",
      }}
    >
      {children}
    </Box>
  );
}

function PainterMenu({ painter }: { painter: Profile }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const firstMinute = useFirstMinute();
  const [asked, setAsked] = useState<"passphrase" | "sessions" | "leave" | null>(null);
  const leave = useCallback(async () => {
    setAsked(null);
    await client.DELETE("/api/session");
    await navigate("/");
    await queries.invalidateQueries(sessionQuery);
  }, [navigate, queries]);
  return (
    <>
      <Choice
        label={`painter: ${painter.name}`}
        bold={false}
        shown={
          <Box
            component="span"
            sx={{
              maxWidth: 118,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {painter.name}
          </Box>
        }
      >
        {(close) => [
          <MenuItem
            key="words"
            onClick={() => {
              close();
              void navigate("/words");
            }}
          >
            words
          </MenuItem>,
          painter.demo && !firstMinute.shown && (
            <MenuItem
              key="minute"
              onClick={() => {
                close();
                firstMinute.bringBack();
              }}
            >
              a first minute
            </MenuItem>
          ),
          !painter.demo && (
            <MenuItem
              key="passphrase"
              onClick={() => {
                close();
                setAsked("passphrase");
              }}
            >
              {painter.passphrase ? "another passphrase" : "a passphrase"}
            </MenuItem>
          ),
          !painter.demo && (
            <MenuItem
              key="sessions"
              onClick={() => {
                close();
                setAsked("sessions");
              }}
            >
              where I am signed in
            </MenuItem>
          ),
          <MenuItem
            key="leave"
            onClick={() => {
              close();
              setAsked("leave");
            }}
          >
            somebody else is painting
          </MenuItem>,
        ]}
      </Choice>
      {asked === "passphrase" && (
        <PassphraseDialog painter={painter} onClose={() => setAsked(null)} />
      )}
      {asked === "leave" && (
        <BeforeLeaving onLeave={() => void leave()} onStay={() => setAsked(null)} />
      )}
      {asked === "sessions" && <SessionsDialog painter={painter} onClose={() => setAsked(null)} />}
    </>
  );
}

/** The places in the order of work. */
const places = [
  { word: "Box", path: "/box" },
  { word: "System", path: "/system" },
  { word: "Wheel", path: "/wheel" },
  { word: "Pairings", path: "/pairings" },
  { word: "Path", path: "/path" },
  { word: "Compare", path: "/compare" },
  { word: "Bench", path: "/bench" },
  { word: "Log", path: "/log" },
] as const;

const pitch = 84;

/** The rail: a thread that swells at the present place. Number keys go there. */
function Rail() {
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const present = places.findLastIndex((p) => pathname.startsWith(p.path));
  const now = pathname === "/begin" ? 1 : present;
  // The places of one kept system lie side by side.
  const [, kept] = /^\/(?:system|wheel|pairings|path|bench)\/(\d+)/.exec(pathname) ?? [];
  const pathOf = (path: string) =>
    kept && path !== "/box" && path !== "/compare" && path !== "/log" ? `${path}/${kept}` : path;
  useEffect(() => {
    void window.scrollTo(0, 0); // newer browsers answer with a promise
  }, [pathname]);
  // Before the page is seen: a key pressed at once is not lost.
  useLayoutEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const place = places[Number(e.key) - 1];
      if (place && !typing(e)) void navigate(pathOf(place.path));
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });
  const height = 4000;
  const bend = 800;
  const y0 = 34 + pitch * now;
  let d = `M${87 - 0.6} 0`;
  const edge = (y: number) => 0.6 + (now < 0 ? 0 : 4 * Math.exp(-(((y - y0) / 30) ** 2)));
  for (let y = 0; y <= bend; y += 4) d += ` L${(87 - edge(y)).toFixed(2)} ${y}`;
  d += ` L${87 - 0.6} ${height} L${87 + 0.6} ${height}`;
  for (let y = bend; y >= 0; y -= 4) d += ` L${(87 + edge(y)).toFixed(2)} ${y}`;
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
        <path d={`${d} Z`} fill={grey.ink} />
      </svg>
      {places.map((p, i) => (
        <ButtonBase
          key={p.word}
          component={Link}
          to={pathOf(p.path)}
          aria-current={i === now ? "page" : undefined}
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
            fontWeight: i === now ? 600 : 400,
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
