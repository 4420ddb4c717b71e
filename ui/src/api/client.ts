import createClient from "openapi-fetch";
import figures from "./constants.json";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Profile = Schemas["Profile"];
export type Paint = Schemas["Paint"];
export type Slot = Schemas["Slot"];
export type Wheel = Schemas["Wheel"];
export type Section = Schemas["Section"];
export type Ingredient = Schemas["Ingredient"];
export type KeptWheel = Schemas["KeptWheel"];
export type WheelContent = Schemas["WheelContent"];
export type Settings = Schemas["Settings"];
export type Selection = Schemas["Selection"];
export type SystemKind = Schemas["SystemKind"];
export type WheelChoices = Schemas["WheelChoices"];
export type SystemPlaces = Schemas["SystemPlaces"];
export type Neutrals = Schemas["Neutrals"];
export type Glazes = Schemas["Glazes"];
export type Mix = Schemas["Mix"];
export type Pair = Schemas["Pair"];
export type Pairings = Schemas["Pairings"];
export type PairingOfBoth = Schemas["PairingOfBoth"];
export type PairedPaint = Schemas["PairedPaint"];
export type PairMark = Schemas["PairMark"];
export type Predictions = Schemas["Predictions"];
export type RingRung = Schemas["RingRung"];
export type Box = Schemas["Box"];
export type KeptTube = Schemas["KeptTube"];
export type Tube = Schemas["Tube"];
export type TubeContent = Schemas["TubeContent"];
export type Origin = Schemas["Origin"];
export type Reading = Schemas["Reading"];
export type Preview = Schemas["Preview"];
export type Beside = Schemas["Beside"];
export type Import = Schemas["Import"];
export type Samples = Schemas["Samples"];
export type Shown = Schemas["Shown"];
export type Verdict = Schemas["Verdict"];
export type Counted = Schemas["Counted"];
export type Portion = Schemas["Portion"];
export type BenchPlan = Schemas["BenchPlan"];
export type Sitting = Schemas["Sitting"];
export type BenchRegion = Schemas["BenchRegion"];
export type BenchSheet = Schemas["BenchSheet"];
export type BenchSettings = Schemas["BenchSettings"];
export type Measure = Schemas["Measure"];
export type Conditions = Pick<Settings, "medium" | "light" | "judged">;

/** Figures of the core that pages lay themselves out by. */
export const constants = figures as Omit<typeof figures, "medium" | "choices" | "measures"> & {
  medium: Schemas["Medium"];
  choices: WheelChoices;
  measures: Record<Schemas["Medium"], Measure>;
};

export const client = createClient<paths>({
  querySerializer: { array: { style: "form", explode: false } },
}); // lists with commas between

let painter: number | undefined;

/** Says whose requests these are: the server takes none for another's who has signed in since. */
export function meantFor(id: number | undefined) {
  painter = id;
}

const whose = (): Record<string, string> =>
  painter === undefined ? {} : { "For-Painter": String(painter) };

client.use({
  onRequest({ request }) {
    if (request.method !== "GET")
      for (const [name, value] of Object.entries(whose())) request.headers.set(name, value);
    return request;
  },
});

/** What the server answered instead of what was asked for. */
export class Refused extends Error {
  /** 0 where there was no answer. */
  readonly status: number;
  /** Seconds after which to ask again, where the server says it. */
  readonly retryAfter: number | undefined;
  constructor(status: number, sentence: string, retryAfter?: number) {
    super(sentence);
    this.status = status;
    this.retryAfter = retryAfter;
  }
}

type Answer<T> = { data?: T; error?: { detail?: string }; response: Response };

/** Unwraps an answer, or throws Refused with the server's sentence. */
export async function answer<T>(asked: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await asked;
  } catch {
    throw new Refused(0, "The server does not answer.");
  }
  if (!got.response.ok) {
    throw new Refused(
      got.response.status,
      got.error?.detail ?? "The server cannot do that just now.",
      Number(got.response.headers.get("Retry-After")) || undefined,
    );
  }
  return got.data as T;
}

/** Sends a file as it is, below /api/files, and answers as the rest of the API does. */
export function sendFile<T>(
  path: string,
  file: Blob,
  query: Record<string, string | string[] | undefined> = {},
): Promise<T> {
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(query)) {
    if (value !== undefined && value.length > 0) search.set(name, String(value));
  }
  const asked = fetch(`/api/files/${path}?${search}`, {
    method: "POST",
    body: file,
    headers: { "Content-Type": "application/octet-stream", ...whose() },
  }).then(async (response) => {
    const body = (await response.json()) as unknown;
    return response.ok
      ? { response, data: body as T }
      : { response, error: body as { detail?: string } };
  });
  return answer(asked);
}
