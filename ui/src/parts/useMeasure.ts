import { useSyncExternalStore } from "react";
import { constants, type Conditions, type Measure } from "../api/client";
import { measureWords } from "./choices";

/** What paint is counted out in at this table: chosen by medium, and measured once. */
export type Table = {
  /** Recipes are shown in the measure, and not in parts. */
  counted: boolean;
  of: Partial<Record<Conditions["medium"], Measure>>;
  /** ml of one drop, load or tip. */
  one: Partial<Record<Measure, number>>;
  /** Pixels of this screen to a mm. */
  mm: number;
};

const key = "gyrophane.table";
/** A CSS pixel is a 96th of an inch where nobody has measured. */
const usualMM = 96 / 25.4;
const plain: Table = { counted: false, of: {}, one: {}, mm: usualMM };

/** Whether one drop, load or tip can hold so many ml. */
export const canBe = (ml: number) => ml >= constants.leastOne && ml <= constants.mostOne;

let table = read();
const listeners = new Set<() => void>();

function read(): Table {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? "null");
    if (!kept || typeof kept !== "object") return plain;
    const { counted, of, one, mm } = { ...plain, ...kept };
    return {
      counted: counted === true,
      of: Object.fromEntries(Object.entries(of ?? {}).filter(([, m]) => String(m) in measureWords)),
      one: Object.fromEntries(
        Object.entries(one ?? {}).filter(([, v]) => typeof v === "number" && canBe(v)),
      ),
      mm: typeof mm === "number" && mm >= 1 && mm <= 30 ? mm : usualMM,
    };
  } catch {
    return plain;
  }
}

function set(next: Partial<Table>) {
  table = { ...table, ...next };
  try {
    localStorage.setItem(key, JSON.stringify(table));
  } catch {
    // A browser that keeps nothing forgets it with the page.
  }
  listeners.forEach((tell) => tell());
}

/** What a medium is counted out in at this table from now on. */
export const setMeasureOf = (medium: Conditions["medium"], measure: Measure) =>
  set({ of: { ...table.of, [medium]: measure } });

/** The measure of a medium at this table, and how to change it. */
export function useMeasure(medium: Conditions["medium"]) {
  const now = useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => table,
  );
  const measure = now.of[medium] ?? constants.measures[medium];
  return { ...now, measure, size: now.one[measure], set };
}
