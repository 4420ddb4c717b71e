import { Refused } from "./client";
import { meaningOf, pause } from "./outbox";

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

/**
 * Sends a write until it is answered, and tells whether it has to wait for that. What is sent again
 * is the same to the letter: the server knows it by its version if it came the first time.
 */
export async function answered<T>(
  write: () => Promise<T>,
  waiting: (yes: boolean) => void,
): Promise<T> {
  for (let tries = 0; ; tries++) {
    try {
      const got = await write();
      waiting(false);
      return got;
    } catch (e) {
      const later = e instanceof Refused && meaningOf(e.status) === "later";
      waiting(later);
      if (!later) throw e;
      await new Promise((wake) => setTimeout(wake, pause(tries, e.retryAfter)));
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

/** Tells one thing from all others, also over a reload. */
export const newId = () => crypto.getRandomValues(new Uint32Array(3)).join("-");
