import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useSyncExternalStore } from "react";
import { useLocation, useNavigate } from "react-router";
import { wheelsQuery } from "../api/queries";
import { grey } from "../drawing/style";
import { useKeptWheel } from "../parts/useKeptWheel";
import { typing } from "../parts/keys";

const place = "gyrophane.firstMinute";
const told = new Set<() => void>();

/** Which sentences were done, and whether they were put away; kept in this browser. */
const kept = {
  all: () => localStorage.getItem(place) ?? "",
  set: (next: string) => {
    localStorage.setItem(place, next);
    told.forEach((tell) => tell());
  },
  hear: (tell: () => void) => {
    told.add(tell);
    return () => told.delete(tell);
  },
};

const away = "away";

/** The first minute: whether it is put away, and how to bring it back. */
export function useFirstMinute() {
  const done = useSyncExternalStore(kept.hear, kept.all);
  return {
    shown: done !== away,
    isDone: (n: number) => done.includes(String(n)),
    did: (n: number) => kept.all() === away || kept.set(kept.all() + String(n)),
    putAway: () => kept.set(away),
    bringBack: () => kept.set(""),
  };
}

/** What the demo's wheels are called that the sentences are about, and the paint that spoils a violet. */
const demo = { swapped: "Sea lettuce and mussel", red: "PR108", violet: 7 } as const;

/** A few sentences of the demo that each do something; put away for good by one key. */
export function FirstMinute() {
  const wheels = (useQuery(wheelsQuery).data ?? []).filter((w) => !w.archived);
  const minute = useFirstMinute();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const swapped = wheels.find((w) => w.name === demo.swapped)?.id;
  const [, here] = /^\/\w+\/(\d+)$/.exec(pathname) ?? [];
  const present = here ?? String(wheels[0]?.id ?? "");
  useLayoutEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.key === "0" && !typing(e)) minute.putAway();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
  if (wheels.length === 0) return null;
  /** What a sentence says, whether it was done, and what it does: goes somewhere. */
  const goes = (n: number, says: string, to: string) => ({
    says: `${n} ${says}`,
    done: minute.isDone(n),
    does: () => {
      minute.did(n);
      void navigate(to);
    },
  });
  const two = wheels.slice(0, 2).map((w) => w.id);
  return (
    <Box
      component="section"
      aria-label="a first minute"
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 1,
        minHeight: 40,
        p: { xs: "0 16px", md: "0 24px 0 108px" },
        borderBottom: `1px solid ${grey.hairline}`,
      }}
    >
      <Sentence {...goes(1, "Cover a wheel and guess it.", `/wheel/${present}?cover=on`)} />
      {swapped && (
        <Swap
          wheel={swapped}
          says="2 Swap a red and see the violet turn to mud."
          done={minute.isDone(2)}
          onDone={() => minute.did(2)}
        />
      )}
      {two.length === 2 && (
        <Sentence
          {...goes(3, "Hold two systems side by side.", `/compare?systems=${two.join(",")}`)}
        />
      )}
      <Sentence {...goes(4, "Paint it.", `/bench/${present}`)} />
      <Box sx={{ flex: 1 }} />
      <Button size="small" color="inherit" aria-keyshortcuts="0" onClick={minute.putAway}>
        put these away (0)
      </Button>
    </Box>
  );
}

function Sentence({ says, done, does }: { says: string; done: boolean; does?: () => void }) {
  return (
    <Button
      size="small"
      color="inherit"
      disabled={!does}
      onClick={does}
      sx={{ px: 1, minWidth: 0, color: done ? grey.third : grey.ink }}
    >
      {says}
    </Button>
  );
}

/** Puts the dull red in the place of a wheel's red, and shows its violet. */
function Swap({
  wheel,
  says,
  done,
  onDone,
}: {
  wheel: number;
  says: string;
  done: boolean;
  onDone: () => void;
}) {
  const { content, change } = useKeptWheel(wheel);
  const navigate = useNavigate();
  const swap = () => {
    if (!content) return;
    onDone();
    const { system } = content;
    change({
      ...content,
      system: { ...system, roles: system.roles.map((r, k) => (k === 1 ? [demo.red] : r)) },
    });
    void navigate(`/wheel/${wheel}?slot=${demo.violet}`);
  };
  return <Sentence says={says} done={done} does={content && swap} />;
}
