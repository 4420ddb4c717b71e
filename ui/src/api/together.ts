import { queryOptions } from "@tanstack/react-query";
import { answer, client, Refused, type Schemas } from "./client";
import { hearStream } from "./hearing";
import { meaningOf } from "./outbox";
import { queryClient } from "./queries";

export type Seat = Schemas["ClassSeat"];
export type Tally = Schemas["ClassTally"];
export type ClassRound = Schemas["ClassRound"];
export type Pairing = Schemas["ClassQuestion"];

/** The page where a class predicts; what stands behind its # no server is told. */
export const togetherAt = "/together";

const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";

/** A word of 130 bits by which a phone is known in one round, and nowhere else. */
const newWord = () =>
  [...crypto.getRandomValues(new Uint8Array(26))].map((b) => letters[b % 32]).join("");

type Kept = { pupil: string; said: Record<number, Schemas["Expected"]> };

const place = (token: string) => `gyrophane.together.${token}`;

/** What this phone keeps of a round: its word, and what it said, for that goes at the server once it is counted. */
export function keptOf(token: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(place(token)) ?? "null") as Kept | null;
  } catch {
    return null;
  }
}

export const keep = (token: string, kept: Kept) =>
  localStorage.setItem(place(token), JSON.stringify(kept));

/** Nothing stays of a round that is over. */
export const forget = (token: string) => localStorage.removeItem(place(token));

/** Of a phone in a round: nothing of whoever holds it goes with it. */
const asked = (pupil: string) => ({
  params: { header: { Pupil: pupil } },
  credentials: "omit" as const,
});

/** Comes into the round of a token or a code, and answers with its token. */
export async function join(at: string): Promise<string> {
  const pupil = keptOf(at)?.pupil ?? newWord();
  const { token } = await answer(client.POST("/api/together", { ...asked(pupil), body: { at } }));
  const before = keptOf(token);
  keep(token, { pupil, said: before?.pupil === pupil ? before.said : {} });
  return token;
}

/** Whether asking again may help: it was not refused, or only for the time being. */
export const passes = (why: unknown) =>
  !(why instanceof Refused) || meaningOf(why.status) === "later";

/** Whether a round is over, or never was. */
export const isOver = (why: unknown) => why instanceof Refused && why.status === 404;

/** What a phone sees of its round; Refused with 404 where it is over. */
export const seatQuery = (pupil: string) =>
  queryOptions({
    queryKey: ["seat", pupil],
    queryFn: () => answer(client.GET("/api/together", asked(pupil))),
    retry: (_, why) => passes(why),
    retryDelay: 1000,
    staleTime: 0,
    refetchOnWindowFocus: true, // a phone that slept
  });

/** Says what is expected of a pairing. */
export const sayGuess = (pupil: string, at: number, said: Schemas["Expected"]) =>
  answer(client.PUT("/api/together/guess", { ...asked(pupil), body: { place: at, ...said } }));

/** What of a guess was right, once the cover is lifted: the phone alone remembers what it said. */
export const scoreQuery = (pupil: string, at: number, said: Schemas["Expected"] | undefined) =>
  queryOptions({
    queryKey: ["score", pupil, at, said],
    queryFn: () =>
      answer(
        client.POST("/api/together/score", { ...asked(pupil), body: { place: at, ...said! } }),
      ),
    retry: (_, why) => passes(why),
    staleTime: Infinity,
  });

/** Looks again whenever the teacher has moved, until it is stopped or the round is over. */
export const hearTeacher = (pupil: string) =>
  hearStream(
    (signal) => client.GET("/api/together/changes", { ...asked(pupil), parseAs: "stream", signal }),
    () => void queryClient.invalidateQueries(seatQuery(pupil)),
  );

/** The rounds of a painter's class. */
export const classRoundsQuery = queryOptions({
  queryKey: ["class rounds"],
  queryFn: () => answer(client.GET("/api/class/rounds")),
  staleTime: 0,
});

/** One of them, as its teacher sees it. */
export const classRoundQuery = (id: number) =>
  queryOptions({
    queryKey: ["class round", id],
    queryFn: () => answer(client.GET("/api/class/rounds/{id}", { params: { path: { id } } })),
    staleTime: 0,
  });

/** The sheets that the painter's classes have painted. */
export const classSheetsQuery = queryOptions({
  queryKey: ["class sheets"],
  queryFn: () => answer(client.GET("/api/class/sheets")),
  staleTime: 0,
});

/** One of them: each sheet, the mean of them, and where the class strayed. */
export const classSheetQuery = (id: number) =>
  queryOptions({
    queryKey: ["class sheet", id],
    queryFn: () => answer(client.GET("/api/class/sheets/{id}", { params: { path: { id } } })),
    staleTime: 0,
  });

/** Hears how many have come and guessed, until it is stopped; looks again where the teacher moved in another window. */
export function hearClass(id: number): () => void {
  const stream = new EventSource(`/api/class/rounds/${id}/changes`);
  const { queryKey } = classRoundQuery(id);
  stream.onmessage = (e: MessageEvent<string>) => {
    const known = queryClient.getQueryData(queryKey);
    if (e.data === "look" || !known) return void queryClient.invalidateQueries({ queryKey });
    const now = JSON.parse(e.data) as Pick<ClassRound, "version" | "joined" | "guessed">;
    if (now.version > known.version) void queryClient.invalidateQueries({ queryKey });
    else if (now.version === known.version)
      queryClient.setQueryData(queryKey, { ...known, ...now });
  };
  return () => stream.close();
}
