import {
  answer,
  client,
  meantFor,
  Refused,
  type Box,
  type Conditions,
  type KeptWheel,
  type Schemas,
  type TubeContent,
  type WheelContent,
} from "./client";
import { meaningOf, Outbox, type Courier, type Entry } from "./outbox";
import {
  boxQuery,
  comparisonsQuery,
  isBoxQuery,
  keptQuery,
  marksQuery,
  queryClient,
  sessionQuery,
  sittingQuery,
  wheelsQuery,
} from "./queries";
import type { paths } from "./schema";
import { offsetOf } from "./serverClock";
import { livingTabs, tab } from "./tabs";
import { inTurn } from "./writing";

/** What a change of a document holds; `resolves` names a refused version that it settles. */
export type Change<C> = { content: C; resolves?: number };

export const wheelThing = (id: number) => `wheel/${id}`;
export const tubeThing = (id: number | string) => `tube/${id}`;
export const sittingThing = (id: number) => `sitting/${id}`;
export const boxTurn = "box";
export const marksThing = "marks/all";
/** A comparison that is kept; 0 is where new ones are kept. */
export const comparisonThing = (id: number) => `comparison/${id}`;
export const comparisonsTurn = "comparisons";

/** What is told of comparisons. */
export type Told =
  | { kind: "keep"; content: Pick<Schemas["KeptComparison"], "address" | "note" | "decision"> }
  | {
      kind: "note";
      content: Pick<Schemas["KeptComparison"], "note" | "decision">;
      version: number;
    }
  | { kind: "drop" };
export type PairToMark =
  paths["/api/pairings/marks"]["put"]["requestBody"]["content"]["application/json"][number];

/** Who is signed in, asked of the server itself; undefined where it does not say. */
async function whoPaints(): Promise<number | null | undefined> {
  try {
    const asked = await client.GET("/api/session");
    if (!asked.data || asked.response.headers.has("Kept-Here")) return undefined;
    return asked.data.painter?.id ?? null;
  } catch {
    return undefined;
  }
}

/** What waits in this browser to be sent. */
export const outbox = new Outbox({
  storage: localStorage,
  tab,
  living: livingTabs,
  whoPaints,
  ended: () => void askAgain(),
  wait: (ms) => {
    let wake: () => void = () => undefined;
    const done = new Promise<void>((over) => {
      wake = over;
      setTimeout(over, ms);
    });
    return { done, wake };
  },
  inTurn,
});

/** The session has ended, or is another's: who paints is asked again, who may be back already. */
async function askAgain() {
  await queryClient.invalidateQueries(sessionQuery);
  const painter = queryClient.getQueryData(sessionQuery.queryKey)?.painter;
  if (painter) enter(painter);
}

const idOf = (thing: string) => Number(thing.split("/")[1]);
const changeOf = <C>(entries: Entry[]) => entries[0]!.body as Change<C>;

/** Takes a wheel for what is kept. A read that is under way may be older. */
export function adoptWheel(w: KeptWheel) {
  void queryClient.cancelQueries(keptQuery(w.id));
  queryClient.setQueryData(keptQuery(w.id).queryKey, w);
  void queryClient.invalidateQueries(wheelsQuery);
}

const wheels: Courier = {
  kind: "document",
  most: 0,
  turn: (thing) => thing,
  send: async (thing, entries, version) => {
    const { content, resolves } = changeOf<WheelContent>(entries);
    const id = idOf(thing);
    const body = { ...content, version, resolves };
    const w = await answer(client.PUT("/api/wheels/{id}", { params: { path: { id } }, body }));
    adoptWheel(w);
    return { version: w.version };
  },
  version: async (thing) =>
    (await answer(client.GET("/api/wheels/{id}", { params: { path: { id: idOf(thing) } } })))
      .version,
  met: (thing) => void queryClient.invalidateQueries(keptQuery(idOf(thing))),
};

const ofBox = { queryKey: ["box"], predicate: isBoxQuery };

/** The box as it was last answered, under whatever light, and that. */
export function boxKnown(): { box: Box; view: Conditions } | undefined {
  const last = queryClient
    .getQueryCache()
    .findAll(ofBox)
    .filter((q) => q.state.data !== undefined)
    .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt)[0];
  if (!last) return undefined;
  const [, medium, light, judged] = last.queryKey as ["box", ...string[]];
  return { box: last.state.data as Box, view: { medium, light, judged } as Conditions };
}

/** Takes a box for what is kept. Reads that are under way may be older. */
export function adoptBox(view: Conditions, box: Box): Box {
  void queryClient.cancelQueries(ofBox);
  queryClient.removeQueries({ ...ofBox, type: "inactive" });
  queryClient.setQueryData(boxQuery(view).queryKey, box);
  void queryClient.invalidateQueries({
    queryKey: ["box"],
    predicate: (q) => q.queryKey.join() !== boxQuery(view).queryKey.join(),
  });
  return box;
}

const tubeIn = (box: Box, thing: string) =>
  [...box.tubes, ...box.archived].find((t) => t.id === idOf(thing));
const anyView: Conditions = { medium: "acrylic", light: "D65", judged: "dry" };

const tubes: Courier = {
  kind: "document",
  most: 0,
  turn: () => boxTurn,
  send: async (thing, entries, version) => {
    const { content, resolves } = changeOf<TubeContent>(entries);
    const view = boxKnown()?.view ?? anyView;
    const box = await answer(
      client.PUT("/api/box/paints/{id}", {
        params: { path: { id: idOf(thing) }, query: view },
        body: { ...content, version, resolves },
      }),
    );
    adoptBox(view, box);
    return { version: tubeIn(box, thing)?.version };
  },
  version: async (thing) => {
    const box = await answer(client.GET("/api/box", { params: { query: anyView } }));
    const version = tubeIn(box, thing)?.version;
    if (version === undefined) throw new Refused(404, "This paint is not in the box any more.");
    return version;
  },
  met: () => void queryClient.invalidateQueries({ queryKey: ["box"] }),
};

const sittings: Courier = {
  kind: "events",
  most: 40_000,
  turn: (thing) => thing,
  send: async (thing, entries) => {
    const id = idOf(thing);
    const asked = Date.now();
    const { untold, ...now } = await answer(
      client.POST("/api/sittings/{id}/events", {
        params: { path: { id } },
        body: { events: entries.map((e) => e.body as Schemas["SittingEvent"]) },
      }),
    );
    offsetOf(now.now, asked);
    queryClient.setQueryData(sittingQuery(id).queryKey, now);
    return { refused: untold };
  },
};

const marks: Courier = {
  kind: "events",
  most: 0, // what was set by one press, by itself
  turn: (thing) => thing,
  send: async (_, entries) => {
    try {
      const body = entries.flatMap((e) => e.body as PairToMark[]);
      const all = await answer(client.PUT("/api/pairings/marks", { body }));
      // A read that is under way may be older than what was just answered.
      void queryClient.cancelQueries(marksQuery);
      queryClient.setQueryData(marksQuery.queryKey, all);
    } catch (e) {
      if (e instanceof Refused && meaningOf(e.status) !== "later")
        void queryClient.invalidateQueries(marksQuery);
      throw e;
    }
    return {};
  },
};

const comparisons: Courier = {
  kind: "events",
  most: 0,
  turn: () => comparisonsTurn,
  send: async (thing, [entry], version) => {
    const told = entry!.body as Told;
    const path = { id: idOf(thing) };
    try {
      const all = await answer(
        told.kind === "keep"
          ? client.POST("/api/comparisons", { body: { ...told.content, told: entry!.id } })
          : told.kind === "note"
            ? client.PUT("/api/comparisons/{id}", {
                params: { path },
                body: { ...told.content, version: Math.max(version, told.version) },
              })
            : client.DELETE("/api/comparisons/{id}", { params: { path } }),
      );
      // A read that is under way may be older than what was just answered.
      void queryClient.cancelQueries(comparisonsQuery);
      queryClient.setQueryData(comparisonsQuery.queryKey, all);
      return { version: all.find((c) => c.id === path.id)?.version };
    } catch (e) {
      void queryClient.invalidateQueries(comparisonsQuery);
      throw e;
    }
  },
  takesAway: (entry) => (entry.body as Told).kind === "drop",
  // What is sent again after it was refused is written over what is there now.
  version: async (thing) =>
    (await answer(client.GET("/api/comparisons"))).find((c) => c.id === idOf(thing))?.version ?? 0,
};

outbox.carry("wheel", wheels);
outbox.carry("comparison", comparisons);
outbox.carry("marks", marks);
outbox.carry("tube", tubes);
outbox.carry("sitting", sittings);

addEventListener("online", () => outbox.wake());
// A tab that was closed since has left what it did not send.
setInterval(() => void outbox.inherit(), 15_000);

/** The painters who are known here by name, so that what waits for them can be spoken of. */
const names = "gyrophane.painters";
export const nameHere = (id: number): string =>
  stored<Record<string, string>>(names)[id] ?? "a painter";

/** What the browser keeps under a name; an empty one where that is nothing, or makes no sense. */
function stored<T extends object>(name: string): Partial<T> {
  try {
    return (JSON.parse(localStorage.getItem(name) ?? "{}") as Partial<T> | null) ?? {};
  } catch {
    return {};
  }
}

type Unsaved = { version: number; changes: { id: string; content: unknown; resolves?: number }[] };

/** Takes over what a page of before there was an outbox has left unsent. */
function takeOver() {
  for (const name of Object.keys(localStorage)) {
    const [, what, wheel] =
      /^gyrophane\.(sittings|unsaved\.box|unsaved\.system\.(\d+))#/.exec(name) ?? [];
    if (!what) continue;
    for (const [key, left] of Object.entries(stored<Record<string, Unsaved>>(name))) {
      if (!Array.isArray(left?.changes)) continue;
      const entries = left.changes.map(({ id, content, resolves }, n): Entry => {
        const event = content as Partial<Schemas["SittingEvent"]>;
        return what === "sittings"
          ? { id, body: content, says: event.kind ?? "a tap", at: event.at ?? n }
          : { id, body: { content, resolves }, says: "what you changed before", at: n };
      });
      const thing =
        what === "sittings"
          ? sittingThing(Number(key))
          : wheel
            ? wheelThing(Number(wheel))
            : tubeThing(key);
      const line = outbox.line(thing);
      outbox.replace(thing, {
        ...line,
        version: left.version,
        waiting: [...line.waiting, ...entries],
      });
    }
    localStorage.removeItem(name);
  }
}

/**
 * Somebody paints here from now on, or nobody: what waits for the painter is sent, and what was seen
 * of another's goes.
 */
export function enter(painter: { id: number; name: string } | null) {
  const before = outbox.get().painter;
  if (painter) {
    localStorage.setItem(names, JSON.stringify({ ...stored(names), [painter.id]: painter.name }));
  }
  if (before !== null && before !== painter?.id) forgetSeen();
  if (painter === null && before === null) forgetSeen();
  meantFor(painter?.id);
  outbox.open(painter?.id ?? null);
  if (painter) takeOver();
}

/** All that this browser holds of the painter who is signed in goes: what waits, the name, what was seen. */
export function forget(painter: number) {
  outbox.letAllGo();
  forgetName(painter);
  forgetSeen();
}

/** What waited here for a painter who is not signed in goes, and the name. */
export function letGoOf(painter: number) {
  outbox.letGoOf(painter);
  forgetName(painter);
}

function forgetName(painter: number) {
  const others = Object.entries(stored(names)).filter(([id]) => id !== String(painter));
  localStorage.setItem(names, JSON.stringify(Object.fromEntries(others)));
}

/** What was seen of a painter's things goes, in this page and in the worker that kept it. */
function forgetSeen() {
  const shared = ["session", "painters", "ready"];
  queryClient.removeQueries({ predicate: (q) => !shared.includes(String(q.queryKey[0])) });
  if ("caches" in window) void caches.delete("gyrophane-seen");
}
