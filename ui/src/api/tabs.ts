/**
 * The tabs of this browser: which of them are open, and which one does for all what only one need do.
 * Where the browser has locks (not on plain HTTP) a lock says it; else a heartbeat.
 */

/** What this page goes by. A page that is loaded anew is another one. */
export const tab = crypto.getRandomValues(new Uint32Array(2)).join("");

const beats = "gyrophane.tab/";
const beatEvery = 2000; // ms
/** A tab that was not heard of for so long is closed: hidden ones are let beat once a minute. */
const silence = 90_000; // ms

const lockOf = (name: string) => `gyrophane.tab.${name}`;

const beat = () => {
  try {
    localStorage.setItem(beats + tab, String(Date.now()));
  } catch {
    // No room: the locks have to do.
  }
};

const rounds = new Set<() => void>();

/** Lets something happen at each beat, until it is stopped. */
function everyBeat(go: () => void) {
  rounds.add(go);
  go();
  return () => void rounds.delete(go);
}

void navigator.locks?.request(lockOf(tab), () => new Promise<never>(() => undefined));
beat();
setInterval(() => {
  beat();
  rounds.forEach((go) => go());
}, beatEvery);
addEventListener("pagehide", () => localStorage.removeItem(beats + tab));
// A page that comes back may have had its things taken over.
addEventListener("pageshow", (e) => e.persisted && location.reload());

/** The tabs that are open, this one among them. */
export async function livingTabs(): Promise<Set<string>> {
  const held = (await navigator.locks?.query())?.held;
  if (held) {
    const names = held.map((l) => l.name ?? "").filter((name) => name.startsWith(lockOf("")));
    return new Set([tab, ...names.map((name) => name.slice(lockOf("").length))]);
  }
  const living = new Set([tab]);
  for (const name of Object.keys(localStorage)) {
    if (!name.startsWith(beats)) continue;
    const since = Date.now() - Number(localStorage.getItem(name));
    if (since < silence) living.add(name.slice(beats.length));
    else localStorage.removeItem(name);
  }
  return living;
}

/**
 * Does something in one tab of all, in another one when that is closed: `go` begins it and answers
 * with how it is ended. It stops when what this answers with is called.
 */
export function inOneTab(what: string, go: () => () => void): () => void {
  let end: (() => void) | undefined;
  const stop = () => {
    end?.();
    end = undefined;
  };
  if (navigator.locks) {
    const leave = new AbortController();
    let release: () => void = () => undefined;
    void navigator.locks
      .request(`gyrophane.${what}`, { signal: leave.signal }, () => {
        end = go();
        return new Promise<void>((done) => (release = done));
      })
      .catch(() => undefined); // left before it was this tab's turn
    return () => {
      stop();
      leave.abort();
      release();
    };
  }
  const lease = `gyrophane.lease/${what}`;
  const lasts = 3 * beatEvery;
  const stopRounds = everyBeat(() => {
    const [by, at] = (localStorage.getItem(lease) ?? "").split(":");
    const free = by === undefined || by === tab || !(Date.now() - Number(at) < lasts);
    if (!free) return stop();
    localStorage.setItem(lease, `${tab}:${Date.now()}`);
    end ??= go();
  });
  return () => {
    stopRounds();
    if (end) localStorage.removeItem(lease);
    stop();
  };
}
