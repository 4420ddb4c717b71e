import type { Profile } from "./client";
import type { Entry, Line } from "./outbox";

/**
 * What waited in one browser as a file, for when that reaches the server no more: JSON that says whose it
 * is, to be taken in by another browser of the same painter in the same studio.
 */
const kind = "what waited to be sent";

const largest = 2_000_000; // bytes
const mostEntries = 5000;
const mostThings = 500;

export type Waited = Record<string, Line>;

/** What the file is called when it is saved. */
export const waitedName = "gyrophane-waiting.json";

export function waitedFile(of: Pick<Profile, "id" | "name" | "since">, lines: Waited): Blob {
  const painter = { id: of.id, name: of.name, since: of.since };
  const content = JSON.stringify({ gyrophane: kind, painter, lines }, null, 2);
  return new Blob([content], { type: "application/json" });
}

const things = /^(?:(?:wheel|tube|sitting|comparison)\/\d{1,15}|marks\/all)$/;

const isObject = (of: unknown): of is Record<string, unknown> =>
  typeof of === "object" && of !== null && !Array.isArray(of);
const isText = (of: unknown, most: number): of is string =>
  typeof of === "string" && of.length <= most;

const unlike = new Error(
  "This is no file of what waited: choose the one that the other device saved, gyrophane-waiting.json.",
);
const broken = new Error(
  "The file is not whole, so nothing of it was taken in: save it again on the other device.",
);

/** The things in a file; an Error with a sentence where it cannot be used. */
export async function readWaited(file: Blob, me: Profile): Promise<Waited> {
  if (file.size > largest) throw new Error("The file is too large: 2 MB at most.");
  let of: unknown;
  try {
    of = JSON.parse(await file.text());
  } catch {
    throw unlike;
  }
  if (!isObject(of) || of.gyrophane !== kind) throw unlike;
  if (!isObject(of.painter) || !isObject(of.lines)) throw broken;
  if (of.painter.id !== me.id || of.painter.since !== me.since)
    throw new Error(
      `This waited for ${isText(of.painter.name, 80) ? of.painter.name : "another painter"} in another studio, or for somebody else in this one: it can be taken in only by them.`,
    );
  const lines: Waited = {};
  let n = 0;
  for (const [thing, line] of Object.entries(of.lines)) {
    if (!things.test(thing) || !isObject(line)) throw broken;
    const read = { waiting: entriesOf(line.waiting), aside: entriesOf(line.aside) };
    const { version } = line;
    if (typeof version !== "number" || !Number.isSafeInteger(version) || version < 0) throw broken;
    n += read.waiting.length + read.aside.length;
    lines[thing] = { version, ...read };
  }
  if (n > mostEntries || Object.keys(lines).length > mostThings)
    throw new Error(`There is too much in the file: ${mostEntries} entries at most.`);
  return lines;
}

function entriesOf(of: unknown): Entry[] {
  if (!Array.isArray(of)) throw broken;
  return of.map((e: unknown) => {
    if (!isObject(e) || !isText(e.id, 100) || e.id === "" || !isText(e.says, 1000)) throw broken;
    if (typeof e.at !== "number" || !Number.isFinite(e.at)) throw broken;
    for (const may of [e.group, e.needs, e.why])
      if (may !== undefined && !isText(may, 1000)) throw broken;
    const { id, body, says, at, group, needs, why } = e as Entry;
    return { id, body, says, at, group, needs, why };
  });
}
