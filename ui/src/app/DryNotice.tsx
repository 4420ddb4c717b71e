import Button from "@mui/material/Button";
import { useEffect, useRef, useState } from "react";
import { Link as To } from "react-router";
import type { Schemas } from "../api/client";
import { useServerNow } from "../api/serverClock";
import { keptSignal, signal } from "../parts/whenDry";
import { Notice } from "./Notice";
import { useUnderWay } from "./UnderWay";

/** For how long it is said that something has dried, ms. */
const said = 90_000;

/** Tells at every other place what has dried of the sitting that is under way. */
export function DryNotice() {
  const last = useUnderWay();
  return last && last.wet.length > 0 ? <Drying key={last.id} sitting={last} /> : null;
}

function Drying({ sitting: s }: { sitting: Schemas["SittingUnderWay"] }) {
  const now = useServerNow();
  const [noted, setNoted] = useState(0);
  const before = useRef(now);
  const dried = s.wet.filter((w) => w.until <= now && w.until > Math.max(noted, now - said));
  useEffect(() => {
    const was = before.current;
    before.current = now;
    if (s.wet.some((w) => w.until > was && w.until <= now)) signal(keptSignal());
  }, [now, s.wet]);
  if (dried.length === 0) return null;
  return (
    <Notice>
      <span>
        {dried.map((w) => w.label).join(" and ")} of {s.name} {dried.length > 1 ? "are" : "is"} dry.
      </span>
      <Button component={To} to={`/bench/sitting/${s.id}`} variant="outlined" color="inherit">
        go on
      </Button>
      <Button color="inherit" onClick={() => setNoted(now)}>
        noted
      </Button>
    </Notice>
  );
}
