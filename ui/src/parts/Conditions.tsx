import Box from "@mui/material/Box";
import Divider from "@mui/material/Divider";
import type { ReactNode } from "react";
import type { Conditions } from "../api/client";
import { Setting } from "./Choice";
import { judgedWords, lightWords, mediumWords } from "./choices";

/** What stands together in the bar. */
export function Group({ children }: { children: ReactNode }) {
  return (
    <>
      <Divider orientation="vertical" flexItem sx={{ height: 20, alignSelf: "center" }} />
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, minWidth: 0 }}>{children}</Box>
    </>
  );
}

/** What the pigment is bound in. */
export function MediumChoice({
  label,
  value,
  onChoose,
}: {
  label: string;
  value: Conditions["medium"];
  onChoose: (m: Conditions["medium"]) => void;
}) {
  return <Setting label={label} bold words={mediumWords} value={value} onChoose={onChoose} />;
}

/** How colours are looked at, and how that is changed. */
export type Viewed = { view: Conditions; onSet: (view: Partial<Conditions>) => void };

/** How colours are looked at: medium, light, wet or dry. */
export function ViewingConditions({ view, onSet }: Viewed) {
  return (
    <Group>
      <MediumChoice label="medium" value={view.medium} onChoose={(medium) => onSet({ medium })} />
      <Setting
        label="light"
        words={lightWords}
        value={view.light}
        onChoose={(light) => onSet({ light })}
      />
      <Setting
        label="judged"
        words={judgedWords}
        value={view.judged}
        onChoose={(judged) => onSet({ judged })}
      />
    </Group>
  );
}
