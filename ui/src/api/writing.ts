import { Refused } from "./client";

/**
 * How everything that is kept is written: the writes of one thing go one after the other, each when
 * the one before has been answered, so that none meets a version it did not know. They live outside
 * of the pages, for a page is left before its writes are answered.
 */
const ends = new Map<string, Promise<unknown>>();

/** Writes to a thing once the writes to it that were asked for before have been answered. */
export function inTurn<T>(thing: string, write: () => Promise<T>): Promise<T> {
  const turn = (ends.get(thing) ?? Promise.resolve()).then(write);
  const end = turn.catch(() => undefined);
  ends.set(thing, end);
  void end.then(() => {
    if (ends.get(thing) === end) ends.delete(thing);
  });
  return turn;
}

const again = 1500; // ms

/**
 * Sends a write until it is answered, and tells whether it has to wait for the connection. What is
 * sent again is the same to the letter: the server knows it by its version if it came the first time.
 */
export async function answered<T>(
  write: () => Promise<T>,
  waiting: (yes: boolean) => void,
): Promise<T> {
  for (;;) {
    try {
      const got = await write();
      waiting(false);
      return got;
    } catch (e) {
      const lost = e instanceof Refused && e.lost;
      waiting(lost);
      if (!lost) throw e;
      await new Promise((wake) => setTimeout(wake, again));
    }
  }
}

/**
 * What was changed from `shown` to `mine`, changed in `now` as well: an edit that was made while
 * something else was on its way to the server.
 */
export function rebased<T>(shown: T, mine: T, now: T): T {
  if (Object.is(shown, mine) || JSON.stringify(shown) === JSON.stringify(mine)) return now;
  if (Array.isArray(shown) && Array.isArray(mine) && Array.isArray(now)) {
    if (shown.length !== mine.length || mine.length !== now.length) return mine;
    return mine.map((m: unknown, i) => rebased<unknown>(shown[i], m, now[i])) as T;
  }
  if (isObject(shown) && isObject(mine) && isObject(now)) {
    const out: Record<string, unknown> = { ...now };
    for (const name of Object.keys(shown)) if (!(name in mine)) delete out[name];
    for (const name of Object.keys(mine)) out[name] = rebased(shown[name], mine[name], now[name]);
    return out as T;
  }
  return mine;
}

function isObject(v: unknown): v is Record<string, unknown> {
  return typeof v === "object" && v !== null && !Array.isArray(v);
}

/** What a thing becomes by one change; `resolves` names a refused version that this settles. */
export type Change<C> = { id: string; content: C; resolves?: number };

/** Tells one change from all others, also over a reload. */
export const newId = () => crypto.getRandomValues(new Uint32Array(3)).join("-");

/** The changes of a thing that the server has not confirmed yet, and the version they were made on. */
export type Unsaved<C> = { version: number; changes: Change<C>[] };

type All<C> = Readonly<Record<string, Unsaved<C>>>;

/** What this tab goes by, also after it was loaded anew. */
const tab = (() => {
  const known = sessionStorage.getItem("gyrophane.tab");
  const name = known ?? crypto.getRandomValues(new Uint32Array(2)).join("");
  sessionStorage.setItem("gyrophane.tab", name);
  return name;
})();
const lockOf = (name: string) => `gyrophane.tab.${name}`;

// Held for as long as this tab lives, so that another one leaves its changes alone.
void navigator.locks?.request(lockOf(tab), () => new Promise<never>(() => undefined));

/**
 * The changes of some things on their way to the server, kept in the browser until they are there:
 * under `place`, and each tab's apart from another's.
 */
export class Changes<C> {
  private all: All<C> = {};
  private wait = false;
  private readonly heard = new Set<() => void>();
  /** The changes that wait for their turn or are under way. */
  private readonly taken = new Set<string>();
  private readonly place: string;

  constructor(place: string) {
    this.place = place;
    this.all = read<C>(`${place}#${tab}`);
  }

  get = () => this.all;
  waiting = () => this.wait;

  subscribe = (hear: () => void) => {
    this.heard.add(hear);
    return () => void this.heard.delete(hear);
  };

  setWaiting = (yes: boolean) => {
    if (yes === this.wait) return;
    this.wait = yes;
    this.heard.forEach((hear) => hear());
  };

  hold(key: string, unsaved: Unsaved<C>) {
    const next = { ...this.all };
    if (unsaved.changes.length > 0) next[key] = unsaved;
    else delete next[key];
    this.all = next;
    const mine = `${this.place}#${tab}`;
    if (Object.keys(next).length > 0) localStorage.setItem(mine, JSON.stringify(next));
    else localStorage.removeItem(mine);
    this.heard.forEach((hear) => hear());
  }

  /** Whether nobody has taken a change to send it yet; then it is taken. */
  take(id: string): boolean {
    if (this.taken.has(id)) return false;
    this.taken.add(id);
    return true;
  }

  /** Takes over what tabs that were closed have left. */
  async inherit() {
    const held = (await navigator.locks?.query())?.held?.map((l) => l.name) ?? [];
    for (const name of Object.keys(localStorage)) {
      const [place, other] = name.split("#");
      if (place !== this.place || other === undefined || other === tab) continue;
      if (held.includes(lockOf(other))) continue;
      for (const [key, unsaved] of Object.entries(read<C>(name)))
        if (!this.all[key]) this.hold(key, unsaved);
      localStorage.removeItem(name);
    }
  }
}

function read<C>(name: string): All<C> {
  try {
    const all = (JSON.parse(localStorage.getItem(name) ?? "{}") as All<C> | null) ?? {};
    return Object.fromEntries(Object.entries(all).filter(([, u]) => Array.isArray(u.changes)));
  } catch {
    return {};
  }
}

const places = new Map<string, Changes<unknown>>();

/** The changes under a place: the same for every page that asks. */
export function changesAt<C>(place: string): Changes<C> {
  let found = places.get(place);
  if (!found) places.set(place, (found = new Changes(place)));
  return found as Changes<C>;
}
