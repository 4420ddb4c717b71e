import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import { styled } from "@mui/material/styles";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { useState, type ReactNode } from "react";
import { client, type Profile } from "../api/client";
import { sessionQuery, useReady } from "../api/queries";
import { Mark } from "../drawing/Marks";
import { Choice } from "./Choice";
import { PassphraseDialog } from "./PassphraseDialog";
import { grey } from "./theme";

const Bar = styled("header")({
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  columnGap: 16,
  minHeight: 48,
  padding: "0 24px 0 12px",
  borderBottom: `1px solid ${grey.hairline}`,
});

/** The frame around a place: bar, rail, foot. `conditions` fills the bar. */
export function Shell({ painter, conditions, notice, children }: {
  painter: Profile;
  conditions?: ReactNode;
  notice?: ReactNode;
  children: ReactNode;
}) {
  const ready = useReady();
  return (
    <Box sx={{ minHeight: "100vh", display: "flex", flexDirection: "column" }}>
      <Bar>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1, mr: 1 }}>
          <Mark />
          <Typography component="span" sx={{ fontSize: 16, fontWeight: 600 }}>
            Gyrophane
          </Typography>
        </Box>
        {conditions}
        <Box sx={{ flex: 1 }} />
        <PainterMenu painter={painter} />
      </Bar>
      {ready.data === false && (
        <Notice>The server or its database does not answer. Nothing is lost: what you change is kept here and saved when it is back.</Notice>
      )}
      {notice}
      <Box sx={{ flex: 1, display: "flex", minHeight: 0 }}>
        <Rail />
        <Box component="main" sx={{ flex: 1, minWidth: 0, p: "16px 24px 8px" }}>
          {children}
        </Box>
      </Box>
      <Box component="footer" sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, p: "4px 24px 8px 116px", color: grey.third, fontSize: 12, lineHeight: "16px" }}>
        <span>A screen is not paint: test on paper. Paints are modelled from their pigment class, not from your tube.</span>
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
    <Box role="status" sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, p: "10px 24px 10px 116px", bgcolor: grey.ink, color: grey.paper, fontSize: 15, lineHeight: "20px" }}>
      {children}
    </Box>
  );
}

function PainterMenu({ painter }: { painter: Profile }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [locking, setLocking] = useState(false);
  const leave = async () => {
    await client.DELETE("/api/session");
    await navigate("/");
    queries.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" });
    await queries.invalidateQueries(sessionQuery);
  };
  return (
    <>
      <Choice label={`painter: ${painter.name}`} bold={false} shown={<Box component="span" sx={{ maxWidth: 160, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>{painter.name}</Box>}>
        {(close) => [
          !painter.demo && (
            <MenuItem
              key="passphrase"
              onClick={() => {
                close();
                setLocking(true);
              }}
            >
              {painter.passphrase ? "another passphrase" : "a passphrase"}
            </MenuItem>
          ),
          <MenuItem
            key="leave"
            onClick={() => {
              close();
              void leave();
            }}
          >
            somebody else is painting
          </MenuItem>,
        ]}
      </Choice>
      {locking && <PassphraseDialog painter={painter} onClose={() => setLocking(false)} />}
    </>
  );
}

/** The rail: a thread that swells at the present place. */
function Rail() {
  const height = 640;
  const y0 = 40;
  let d = `M${87 - 0.6} 0`;
  const edge = (y: number) => 0.6 + 4 * Math.exp(-(((y - y0) / 30) ** 2));
  for (let y = 0; y <= height; y += 4) d += ` L${(87 - edge(y)).toFixed(2)} ${y}`;
  for (let y = height; y >= 0; y -= 4) d += ` L${(87 + edge(y)).toFixed(2)} ${y}`;
  return (
    <Box component="nav" aria-label="places" sx={{ width: 92, flex: "none", position: "relative", overflow: "hidden" }}>
      <svg width={92} height="100%" preserveAspectRatio="none" viewBox={`0 0 92 ${height}`} aria-hidden style={{ position: "absolute", inset: 0 }}>
        <path d={`${d} Z`} fill={grey.ink} />
      </svg>
      <Typography component="span" aria-current="page" sx={{ position: "absolute", left: 12, top: 30, fontSize: 15, fontWeight: 600 }}>
        Wheel
      </Typography>
    </Box>
  );
}
