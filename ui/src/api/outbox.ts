/**
 * What waits to be sent, kept by painter and thing until the server has it: held, merged, put in
 * order, and what to do with each answer. It knows neither React nor the API: how a thing is sent is
 * told to it.
 */

/** One thing that waits: an event of a list, or all of a document as it was changed to. */
export type Entry = {
  /** By which the server knows it when it comes again. */
  id: string;
  /** What is sent. */
  body: unknown;
  /** In words, for when it has to be spoken of. */
  says: string;
  /** When it was made: lists of several tabs are merged in this order. */
  at: number;
  /** What is told by one tap goes, and stays, together. */
  group?: string;
  /** The entry or group that this one builds on. */
  needs?: string;
  /** Of what was put aside: why. */
  why?: string;
};

/** What waits for one thing, and what was refused of it. `version` is what a document was changed on. */
export type Line = { version: number; waiting: Entry[]; aside: Entry[] };

export const nothing: Line = { version: 0, waiting: [], aside: [] };

/** What the server kept, and what it did not. */
export type Outcome = { version?: number; refused?: { id: string; says: string }[] };

/** An answer that is none. */
export type Failure = { status: number; message: string; retryAfter?: number };

/** How the things of one kind are sent. */
export type Courier = {
  /** Events are facts that are merged; of a document only one version can be the next. */
  kind: "events" | "document";
  /** So many bytes of entries go at once; a document goes change by change. */
  most: number;
  send: (thing: string, entries: Entry[], version: number) => Promise<Outcome>;
  /** The version that the server has, to change a document anew on. */
  version?: (thing: string) => Promise<number>;
  /** Whether an entry takes its thing away: it is done where that is gone. */
  takesAway?: (entry: Entry) => boolean;
  /** Hears that a change of a document met another one; the server keeps both. */
  met?: (thing: string) => void;
  /** Things that take turns with each other go by one name. */
  turn: (thing: string) => string;
};

export type Meaning = "later" | "who" | "met" | "refused";

/** What it means that something was not taken. */
export function meaningOf(status: number): Meaning {
  if (status === 401) return "who";
  if (status === 409) return "met";
  return status === 0 || status === 408 || status === 425 || status === 429 || status >= 500
    ? "later"
    : "refused";
}

/** How long to wait before the next try, in ms: longer each time, and as long as was asked for. */
export function pause(tries: number, retryAfter = 0): number {
  return Math.max(retryAfter * 1000, Math.min(15_000, 500 * 2 ** Math.min(tries, 10)));
}

export type Surroundings = {
  storage: Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;
  /** What this tab goes by: no other does, nor did. */
  tab: string;
  /** Tabs that are open, this one among them. */
  living: () => Promise<Set<string>>;
  /** Who is signed in now, if that can be known. */
  whoPaints: () => Promise<number | null | undefined>;
  /** Hears that nobody is signed in any more, or another painter is. */
  ended: () => void;
  /** Lets so many ms pass, or less where `wake` is called. */
  wait: (ms: number) => { done: Promise<void>; wake: () => void };
  /** Goes on when what has the same turn is done. */
  inTurn: <T>(turn: string, go: () => Promise<T>) => Promise<T>;
};

/** What can be seen of an outbox; another object whenever it changes. */
export type Seen = {
  painter: number | null;
  lines: Readonly<Record<string, Line>>;
  /** The server cannot be reached, or takes nothing for the moment. */
  lost: boolean;
  /** The browser has no room to keep what waits: it is lost when the page is closed. */
  full: boolean;
};

const prefix = "gyrophane.outbox/";

export class Outbox {
  private seen: Seen = { painter: null, lines: {}, lost: false, full: false };
  private readonly heard = new Set<() => void>();
  private readonly couriers = new Map<string, Courier>();
  private readonly going = new Set<string>();
  private readonly naps = new Set<() => void>();
  private readonly out: Surroundings;
  /** Who was there last: what is still tapped while it is locked is theirs. */
  private last: number | null = null;

  constructor(out: Surroundings) {
    this.out = out;
  }

  get = () => this.seen;
  subscribe = (hear: () => void) => {
    this.heard.add(hear);
    return () => void this.heard.delete(hear);
  };

  private show(next: Partial<Seen>) {
    this.seen = { ...this.seen, ...next };
    this.heard.forEach((hear) => hear());
  }

  /** Says how things are sent whose names begin so: "sitting" sends "sitting/12". */
  carry(kind: string, courier: Courier) {
    this.couriers.set(kind, courier);
  }

  private courierOf = (thing: string) => this.couriers.get(thing.split("/")[0]!);

  /** What waits for a thing: of the painter who was there last, where it is locked. */
  line = (thing: string): Line =>
    this.seen.painter === null && this.last !== null
      ? this.read(this.nameOf(this.last, thing))
      : (this.seen.lines[thing] ?? nothing);

  count = () => countOf(this.seen.lines);

  // --- who paints

  /** Opens what waits for a painter, and sends it; null locks it until somebody is back. */
  open(painter: number | null) {
    if (painter === this.seen.painter) return;
    this.show({ painter, lines: painter === null ? {} : this.kept(painter, this.out.tab) });
    if (painter === null) return;
    this.last = painter;
    this.wake();
    void this.inherit();
  }

  /** The painters for whom something waits in this browser, and how much. */
  waitingFor(): Map<number, number> {
    const out = new Map<number, number>();
    for (const name of this.names()) {
      const [painter] = parse(name)!;
      const { waiting, aside } = countOf({ "": this.read(name) });
      if (waiting + aside > 0) out.set(painter, (out.get(painter) ?? 0) + waiting + aside);
    }
    return out;
  }

  /** What waits here for a painter, and what was put aside, in whichever tab. */
  heldFor(painter: number): Record<string, Line> {
    const out: Record<string, Line> = {};
    for (const name of this.names()) {
      const [of, thing] = parse(name)!;
      if (of !== painter) continue;
      const line = this.read(name);
      const before = out[thing] ?? nothing;
      out[thing] = {
        version: Math.max(before.version, line.version),
        waiting: [...before.waiting, ...line.waiting],
        aside: [...before.aside, ...line.aside],
      };
    }
    return out;
  }

  /** Lets all go that waits here for a painter who is not signed in. */
  letGoOf(painter: number) {
    for (const name of this.names())
      if (parse(name)![0] === painter) this.out.storage.removeItem(name);
    this.show({});
  }

  // --- what is kept in the browser

  private nameOf = (painter: number, thing: string) =>
    `${prefix}${painter}/${thing}#${this.out.tab}`;

  private names(): string[] {
    const { storage } = this.out;
    return Array.from({ length: storage.length }, (_, i) => storage.key(i)!).filter(
      (name) => parse(name) !== undefined,
    );
  }

  private read(name: string): Line {
    try {
      const line = JSON.parse(this.out.storage.getItem(name) ?? "null") as Partial<Line> | null;
      const entries = (of: unknown): Entry[] =>
        Array.isArray(of) ? (of as Entry[]).filter((e) => typeof e?.id === "string") : [];
      return {
        version: Number(line?.version) || 0,
        waiting: entries(line?.waiting),
        aside: entries(line?.aside),
      };
    } catch {
      return nothing;
    }
  }

  private kept(painter: number, tab: string): Record<string, Line> {
    const out: Record<string, Line> = {};
    for (const name of this.names()) {
      const [of, thing, by] = parse(name)!;
      if (of === painter && by === tab) out[thing] = this.read(name);
    }
    return out;
  }

  /** Sets what waits for a thing. */
  set(thing: string, line: Line) {
    const locked = this.seen.painter === null;
    const painter = this.seen.painter ?? this.last;
    if (painter === null) return;
    const name = this.nameOf(painter, thing);
    const lines = { ...this.seen.lines, [thing]: line };
    let full = this.seen.full;
    if (line.waiting.length + line.aside.length === 0) {
      delete lines[thing];
      this.out.storage.removeItem(name);
      full = full && Object.keys(lines).length > 0;
    } else {
      try {
        this.out.storage.setItem(name, JSON.stringify(line));
      } catch {
        full = true;
      }
    }
    this.show(locked ? { full } : { lines, full });
  }

  /** Takes over what tabs that are closed have left. */
  async inherit() {
    const living = await this.out.living();
    const { painter } = this.seen;
    if (painter === null) return;
    for (const name of this.names()) {
      const [of, thing, tab] = parse(name)!;
      if (of !== painter || tab === this.out.tab || living.has(tab)) continue;
      this.add(thing, this.read(name));
      this.out.storage.removeItem(name);
    }
    this.deliverAll();
  }

  /** Takes over what waited in another browser, and sends it. */
  takeIn(lines: Readonly<Record<string, Line>>) {
    for (const [thing, left] of Object.entries(lines)) this.add(thing, left);
    this.deliverAll();
  }

  private add(thing: string, left: Line) {
    this.set(thing, merged(this.courierOf(thing)?.kind ?? "events", this.line(thing), left));
  }

  // --- what is done with it

  /** Adds to what waits for a thing, and sends it. */
  hold(thing: string, entries: Entry[]) {
    const line = this.line(thing);
    this.replace(thing, { ...line, waiting: [...line.waiting, ...entries] });
  }

  /** Sets what waits for a thing, and sends it. */
  replace(thing: string, line: Line) {
    this.set(thing, line);
    void this.deliver(thing);
  }

  /** Sends once more what was put aside, with all of its group. */
  async again(thing: string, id: string) {
    const courier = this.courierOf(thing);
    const version = await courier?.version?.(thing).catch(() => undefined);
    const line = this.line(thing);
    const [back, aside] = split(line.aside, together(line.aside, id));
    const waiting = [...line.waiting, ...back.map((e) => ({ ...e, why: undefined }))];
    if (courier?.kind === "events") waiting.sort((a, b) => a.at - b.at);
    const fresh = line.waiting.length === 0 && version !== undefined;
    this.set(thing, { version: fresh ? version : line.version, waiting, aside });
    await this.deliver(thing);
  }

  /** Lets go of what was put aside, with all of its group. */
  letGo(thing: string, id: string) {
    const line = this.line(thing);
    const [, aside] = split(line.aside, together(line.aside, id));
    this.set(thing, { ...line, aside });
  }

  /** Lets go of everything that waits for the painter. */
  letAllGo() {
    for (const thing of Object.keys(this.seen.lines)) this.set(thing, nothing);
  }

  /** Tries at once again what waits for its next try. */
  wake() {
    for (const wake of [...this.naps]) wake();
    this.deliverAll();
  }

  private deliverAll() {
    for (const thing of Object.keys(this.seen.lines)) void this.deliver(thing);
  }

  /** Sends what waits for a thing, in order, until nothing does or it is locked. */
  async deliver(thing: string): Promise<void> {
    const courier = this.courierOf(thing);
    if (!courier || this.going.has(thing)) return;
    this.going.add(thing);
    try {
      await this.send(
        thing,
        courier,
        () => this.line(thing).waiting.length === 0,
        (step) => this.out.inTurn(courier.turn(thing), step),
      );
    } finally {
      this.going.delete(thing);
    }
  }

  /**
   * Sends some of what waits for a thing, and what stands before it, in a turn that is there already:
   * for a write that comes after it.
   */
  async through(thing: string, ids: Set<string>): Promise<void> {
    const courier = this.courierOf(thing);
    const over = () => !this.line(thing).waiting.some((e) => ids.has(e.id));
    if (courier) await this.send(thing, courier, over, (step) => step());
  }

  private async send(
    thing: string,
    courier: Courier,
    over: () => boolean,
    inTurn: <T>(step: () => Promise<T>) => Promise<T>,
  ) {
    let tries = 0;
    let alone = false;
    while (this.seen.painter !== null && !over()) {
      const { painter } = this.seen;
      const left = await inTurn(() => this.sendNext(thing, courier, painter, alone));
      if (left === "locked") return;
      alone ||= left === "one by one";
      if (left === undefined || left === "one by one") {
        tries = 0;
        if (this.seen.lost) this.show({ lost: false });
        continue;
      }
      this.show({ lost: true });
      const nap = this.out.wait(pause(tries++, left.retryAfter));
      this.naps.add(nap.wake);
      await nap.done;
      this.naps.delete(nap.wake);
    }
  }

  /**
   * Sends the next of what waits. It answers with why it has to be tried later, that nobody is there
   * to send it for, that one of several was refused and they are to go one by one; or with nothing
   * when it is settled.
   */
  private async sendNext(
    thing: string,
    courier: Courier,
    painter: number,
    alone: boolean,
  ): Promise<Failure | "locked" | "one by one" | undefined> {
    if (this.seen.painter !== painter) return "locked";
    const line = this.line(thing);
    const batch = nextOf(line.waiting, courier, alone);
    if (batch.length === 0) return undefined;
    try {
      const { version, refused = [] } = await courier.send(thing, batch, line.version);
      if (this.seen.painter !== painter) return "locked";
      this.taken(thing, batch, version, refused);
      return undefined;
    } catch (e) {
      if (this.seen.painter !== painter) return "locked";
      const failure = failureOf(e);
      switch (meaningOf(failure.status)) {
        case "later":
          return failure;
        case "who":
          this.open(null);
          this.out.ended();
          return "locked";
        case "met":
          if (courier.kind === "document") {
            this.met(thing, batch);
            courier.met?.(thing);
            return undefined;
          }
      }
      if (failure.status === 403 || failure.status === 404) {
        const now = await this.out.whoPaints();
        if (now === undefined) return failure;
        if (now !== painter) {
          this.open(null);
          this.out.ended();
          return "locked";
        }
      }
      if (failure.status === 404 && batch.every((e) => courier.takesAway?.(e))) {
        this.taken(thing, batch, undefined, []);
        return undefined;
      }
      if (groupsOf(batch) > 1) return "one by one";
      const all = courier.kind === "document" ? this.line(thing).waiting : batch;
      this.putAside(
        thing,
        all.map(({ id }) => ({ id, says: failure.message })),
      );
      return undefined;
    }
  }

  /** What is left when the server has taken a batch, or some of it. */
  private taken(thing: string, batch: Entry[], version: number | undefined, refused: Untaken[]) {
    const sent = new Set(batch.map((e) => e.id));
    const not = new Set(refused.map((r) => r.id));
    const line = this.line(thing);
    const waiting = line.waiting.filter((e) => !sent.has(e.id) || not.has(e.id));
    this.set(thing, { ...line, version: version ?? line.version, waiting });
    if (refused.length > 0) this.putAside(thing, refused);
  }

  /** A change met another: the server keeps it beside, and what was made on it goes as one. */
  private met(thing: string, batch: Entry[]) {
    const line = this.line(thing);
    const left = line.waiting.filter((e) => !batch.includes(e));
    this.set(thing, { ...line, waiting: left.slice(-1) });
  }

  /**
   * Puts aside what was refused, and what builds on it. Of a document the last version holds all the
   * others.
   */
  private putAside(thing: string, refused: Untaken[]) {
    const line = this.line(thing);
    const why = new Map<string, string>();
    for (const { id, says } of refused)
      for (const of of together(line.waiting, id)) why.set(of, why.get(of) ?? says);
    let [gone, waiting] = split(line.waiting, new Set(why.keys()));
    gone = gone.map((e) => ({ ...e, why: why.get(e.id)! }));
    if (this.courierOf(thing)?.kind === "document") {
      gone = gone.slice(-1);
      waiting = [];
    }
    this.set(thing, { ...line, waiting, aside: [...line.aside, ...gone] });
  }
}

type Untaken = { id: string; says: string };

/** The painter, the thing and the tab of a name in the storage. */
function parse(name: string): [number, string, string] | undefined {
  if (!name.startsWith(prefix)) return undefined;
  const [, painter, thing, tab] = /^(\d+)\/(.+)#([^#]+)$/.exec(name.slice(prefix.length)) ?? [];
  return painter && thing && tab ? [Number(painter), thing, tab] : undefined;
}

function failureOf(e: unknown): Failure {
  const of = e as Partial<Failure> | undefined;
  // What is no answer at all is a fault of the page: it is shown, and what waits is not lost by it.
  return {
    status: typeof of?.status === "number" ? of.status : 400,
    message: of?.message ?? String(e),
    retryAfter: of?.retryAfter,
  };
}

const groupOf = (e: Entry) => e.group ?? e.id;
const groupsOf = (entries: Entry[]) => new Set(entries.map(groupOf)).size;

/** An entry, all of its group, and what builds on any of them. */
function together(entries: Entry[], id: string): Set<string> {
  const out = new Set<string>([id]);
  const groups = new Set(entries.filter((e) => e.id === id).map(groupOf));
  for (let more = true; more;) {
    more = false;
    for (const e of entries) {
      const builds = e.needs !== undefined && (out.has(e.needs) || groups.has(e.needs));
      if (out.has(e.id) || !(groups.has(groupOf(e)) || builds)) continue;
      out.add(e.id);
      groups.add(groupOf(e));
      more = true;
    }
  }
  return out;
}

function split(entries: Entry[], ids: Set<string>): [Entry[], Entry[]] {
  return [entries.filter((e) => ids.has(e.id)), entries.filter((e) => !ids.has(e.id))];
}

/** So many entries go at once. */
const mostAtOnce = 200;

/** What goes next: a change of a document, or as many whole groups as find room, one at least. */
function nextOf(waiting: Entry[], courier: Courier, alone: boolean): Entry[] {
  if (courier.kind === "document") return waiting.slice(0, 1);
  const sizeOf = (e: Entry) => new TextEncoder().encode(JSON.stringify(e.body)).length + 1;
  const out: Entry[] = [];
  let bytes = 0;
  while (out.length < waiting.length) {
    const group = groupOf(waiting[out.length]!);
    const rest = waiting.slice(out.length);
    const end = rest.findIndex((e) => groupOf(e) !== group);
    const whole = end < 0 ? rest : rest.slice(0, end);
    bytes += whole.reduce((sum, e) => sum + sizeOf(e), 0);
    const fits = bytes <= courier.most && out.length + whole.length <= mostAtOnce;
    if (out.length > 0 && (alone || !fits)) break;
    out.push(...whole);
  }
  return out;
}

/** What two tabs or browsers have left for the same thing, as one. */
function merged(kind: Courier["kind"], mine: Line, left: Line): Line {
  const known = new Set([...mine.waiting, ...mine.aside].map((e) => e.id));
  const fresh = (of: Entry[]) => of.filter((e) => !known.has(e.id));
  const aside = [...mine.aside, ...fresh(left.aside)];
  if (kind === "events") {
    const waiting = [...mine.waiting, ...fresh(left.waiting)].sort((a, b) => a.at - b.at);
    return { ...mine, waiting, aside };
  }
  if (mine.waiting.length === 0) return { ...left, aside };
  const why = "It was changed in another tab or browser, and here too: both are kept.";
  const other = fresh(left.waiting).slice(-1);
  return { ...mine, aside: [...aside, ...other.map((e) => ({ ...e, why }))] };
}

/** How many things wait, and how many were put aside; what one tap told counts once. */
export function countOf(lines: Readonly<Record<string, Line>>) {
  const of = (which: "waiting" | "aside") =>
    Object.values(lines).reduce((n, line) => n + groupsOf(line[which]), 0);
  return { waiting: of("waiting"), aside: of("aside") };
}
