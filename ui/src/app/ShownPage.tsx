import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Refused } from "../api/client";
import { exhibitQuery, lookOn, type Exhibit } from "../api/shown";
import { Mark } from "../drawing/Marks";
import { grey } from "../drawing/style";
import { judgedWords, lightWords, mediumWords } from "../parts/choices";
import { Waiting } from "../parts/Waiting";
import { Foot } from "./Foot";
import { Squint } from "./Squint";

const ShownWheel = lazy(async () => ({
  default: (await import("../wheel/ShownWheel")).ShownWheel,
}));
const ShownComparison = lazy(async () => ({
  default: (await import("../compare/ShownComparison")).ShownComparison,
}));
const ShownSheet = lazy(async () => ({
  default: (await import("../sheets/ShownSheet")).ShownSheet,
}));
const ShownSitting = lazy(async () => ({
  default: (await import("../log/ShownSitting")).ShownSitting,
}));
const ShownBox = lazy(async () => ({ default: (await import("../box/ShownBox")).ShownBox }));

/** What one painter shows to whoever has the address; its token stands behind the #. */
export function ShownPage() {
  const [token, setToken] = useState(() => window.location.hash.slice(1));
  useEffect(() => {
    const other = () => setToken(window.location.hash.slice(1));
    window.addEventListener("hashchange", other);
    return () => window.removeEventListener("hashchange", other);
  }, []);
  const got = useQuery(exhibitQuery(token));
  const over = got.error instanceof Refused && got.error.status === 404;
  const live = got.data !== undefined && !over;
  // Also what is as of a day is taken back.
  useEffect(() => (live ? lookOn(token) : undefined), [live, token]);
  return (
    <Box component="main" sx={{ maxWidth: 1240, mx: "auto", p: { xs: 2, md: "20px 32px 32px" } }}>
      {over ? (
        <Typography role="alert" sx={{ mt: 8, textAlign: "center", fontSize: 18 }}>
          {got.error?.message}
        </Typography>
      ) : !got.data ? (
        <Waiting failing={got.failureCount > 0} />
      ) : (
        <>
          <Head of={got.data} />
          <Suspense fallback={<Waiting failing={false} />}>
            <Body of={got.data} token={token} />
          </Suspense>
          <Foot padding="24px 0 0" />
        </>
      )}
    </Box>
  );
}

const day = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long", year: "numeric" });

function Head({ of }: { of: Exhibit }) {
  const seen = of.wheel ?? of.comparison;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "baseline",
        columnGap: 2,
        borderBottom: `1px solid ${grey.hairline}`,
        pb: 1,
        mb: 2,
      }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, minWidth: 0 }}>
        <Mark size={22} />
        <Typography
          variant={of.comparison ? "h3" : "h2"}
          component="h1"
          sx={{ overflowWrap: "anywhere" }}
        >
          {of.called}
        </Typography>
      </Box>
      <Typography sx={{ flex: "1 1 220px", color: grey.second }}>
        {[
          of.by && `by ${of.by}`,
          seen && mediumWords[seen.medium],
          seen && lightWords[seen.light],
          seen && judgedWords[seen.judged],
          of.asOf && `as of ${day.format(new Date(of.asOf))}`,
        ]
          .filter(Boolean)
          .join(", ")}
      </Typography>
      <Squint />
    </Box>
  );
}

function Body({ of, token }: { of: Exhibit; token: string }) {
  if (of.wheel) return <ShownWheel wheel={of.wheel} />;
  if (of.comparison)
    return <ShownComparison got={of.comparison} note={of.note} decision={of.decision} />;
  if (of.sheet) return <ShownSheet pages={of.sheet} name={of.called} />;
  if (of.sitting) return <ShownSitting of={of.sitting} token={token} />;
  return <ShownBox tubes={of.box ?? []} notice={of.cautionNotice} />;
}
