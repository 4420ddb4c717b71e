import {
  keepPreviousData,
  QueryCache,
  QueryClient,
  queryOptions,
  useQuery,
} from "@tanstack/react-query";
import {
  answer,
  client,
  Refused,
  type BenchSheet,
  type Conditions,
  type Mix,
  type Origin,
  type Preview,
  type Schemas,
  type Settings,
  type Selection,
  type Ingredient,
  type Measure,
} from "./client";
import { meaningOf } from "./outbox";
import type { paths } from "./schema";
import { offsetOf } from "./serverClock";

export const queryClient: QueryClient = new QueryClient({
  queryCache: new QueryCache({
    // The session has ended elsewhere: it is asked who paints.
    onError: (error) => {
      if (error instanceof Refused && meaningOf(error.status) === "who")
        void queryClient.invalidateQueries(sessionQuery);
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 60_000,
      refetchOnWindowFocus: false,
      networkMode: "always",
      // What is lost for the moment is asked for again until it is back.
      retry: (count, error) =>
        error instanceof Refused && meaningOf(error.status) === "later" && count < 1000,
      retryDelay: 1500,
    },
    mutations: { networkMode: "always" },
  },
});

/** What is still being worked out is asked for again. */
const whileWorking = (q: { state: { data?: { working: boolean } } }) =>
  q.state.data?.working ? 2000 : false;

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => answer(client.GET("/api/session")),
});

/** Where the painter is signed in. */
export const sessionsQuery = queryOptions({
  queryKey: ["sessions"],
  queryFn: () => answer(client.GET("/api/sessions")),
  staleTime: 0,
});

/** What the painter shows to others. */
export const showingsQuery = queryOptions({
  queryKey: ["showings"],
  queryFn: () => answer(client.GET("/api/showings")),
  staleTime: 0,
});

/** What others would see of a kind of thing. */
export const showableQuery = (kind: Schemas["ShowableKind"]) =>
  queryOptions({
    queryKey: ["showable", kind],
    queryFn: () => answer(client.GET("/api/showable/{kind}", { params: { path: { kind } } })),
  });

/** How other devices reach the server. */
export const accessQuery = queryOptions({
  queryKey: ["access"],
  queryFn: () => answer(client.GET("/api/devices/access")),
  staleTime: 0,
});

/** How far the painter's code for another device has come. */
export const deviceCodeQuery = queryOptions({
  queryKey: ["device-code"],
  queryFn: () => answer(client.GET("/api/devices/code")),
  staleTime: 0,
  gcTime: 0,
});

export const paintersQuery = queryOptions({
  queryKey: ["painters"],
  queryFn: () => answer(client.GET("/api/painters")),
});

/** How much is kept of the painter. */
export const mineQuery = queryOptions({
  queryKey: ["mine"],
  queryFn: () => answer(client.GET("/api/mine")),
  staleTime: 0,
});

/** How often it is asked how far a backup is, ms. */
const restoringEvery = 400;

/** How far the backup is that the painter sent. */
export const restoringQuery = queryOptions({
  queryKey: ["restoring"],
  queryFn: () => answer(client.GET("/api/mine/restoring")),
  staleTime: 0,
  refetchInterval: ({ state }) => (state.data?.state === "under way" ? restoringEvery : false),
});

export const wheelsQuery = queryOptions({
  queryKey: ["wheels"],
  queryFn: () => answer(client.GET("/api/wheels")),
});

export const paintsQuery = ({ medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["paints", medium, light, judged],
    queryFn: () =>
      answer(client.GET("/api/paints", { params: { query: { medium, light, judged } } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** A wheel of a system; the tubes of a kept wheel are taken as they were kept with it. */
export const wheelQuery = (
  wheel: number,
  system: Selection,
  { choices, medium, light, judged, bench }: Settings,
) =>
  queryOptions({
    queryKey: ["wheel", wheel, system, choices, medium, light, judged, bench?.graded],
    queryFn: () =>
      answer(
        client.POST("/api/wheel", {
          params: { query: { medium, light, judged, wheel } },
          body: { system, choices, graded: bench?.graded },
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** What each paint that could stand in a place would make of the sections it faces. */
export const insteadQuery = (
  wheel: number,
  system: Selection,
  { medium, light, judged }: Conditions,
  { role, place }: { role: number; place: number },
) =>
  queryOptions({
    queryKey: ["instead", wheel, system, medium, light, judged, role, place],
    queryFn: () =>
      answer(
        client.POST("/api/system/instead", {
          params: { query: { medium, light, judged, wheel, role, place } },
          body: { system },
        }),
      ),
    staleTime: Infinity,
  });

export const placesQuery = (
  wheel: number,
  system: Selection,
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["places", wheel, system, medium, light, judged],
    queryFn: () =>
      answer(
        client.POST("/api/system", {
          params: { query: { medium, light, judged, wheel } },
          body: { system },
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const neutralsQuery = (
  wheel: number,
  system: Selection,
  { choices, medium, light, judged }: Settings,
  slot: number,
  steps: 5 | 7,
) =>
  queryOptions({
    queryKey: ["neutrals", wheel, system, choices, medium, light, judged, slot, steps],
    queryFn: () =>
      answer(
        client.POST("/api/neutrals", {
          params: { query: { medium, light, judged, wheel, slot, steps } },
          body: { system, choices },
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export type Glazing = {
  ground?: string;
  layers: { paint: string; thickness: number }[];
  thickness: number;
};

export const glazesQuery = (
  wheel: number,
  system: Selection,
  { choices, medium, light, judged }: Settings,
  glazing: Glazing,
) =>
  queryOptions({
    queryKey: ["glazes", wheel, system, choices, medium, light, judged, glazing],
    queryFn: () =>
      answer(
        client.POST("/api/glazes", {
          params: { query: { medium, light, judged, wheel } },
          body: { system, choices, ...glazing },
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** Of what pairings are asked for: a system, the whole box, or some paints. */
export type PairingsOf = { wheel: number; system: Selection } | "box" | { paints: string[] };

/** Every two paints of a system, of the whole box, or of some paints. */
export const pairingsQuery = (
  of: PairingsOf,
  { choices: { spacing }, medium, light, judged }: Settings,
) =>
  queryOptions({
    queryKey: [
      of !== "box" && "system" in of ? "pairings" : "box",
      "pairings",
      of,
      spacing,
      medium,
      light,
      judged,
    ],
    queryFn: () => {
      const query = { spacing, medium, light, judged };
      if (of !== "box" && "system" in of)
        return answer(
          client.POST("/api/pairings", {
            params: { query: { ...query, wheel: of.wheel } },
            body: { system: of.system },
          }),
        );
      return answer(
        client.GET("/api/box/pairings", {
          params: { query: of === "box" ? query : { ...query, paints: of.paints } },
        }),
      );
    },
    enabled: of === "box" || "system" in of || of.paints.length > 1,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export type Way = { wheel: number; a: string; b: string; steps: number; third?: string };

/** One way from a paint to another, with all that is drawn along it. */
export const pairQuery = (way: Way, { choices: { spacing }, medium, light, judged }: Settings) =>
  queryOptions({
    queryKey: ["pair", way, spacing, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/pair", { params: { query: { ...way, spacing, medium, light, judged } } }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** What parts make; each is written PAINT=PARTS. */
export const mixQuery = (wheel: number, parts: string[], { medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["mix", wheel, parts, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/mix", { params: { query: { wheel, parts, medium, light, judged } } }),
      ),
    enabled: parts.length > 0,
    staleTime: Infinity,
    placeholderData: (old: Mix | undefined) => (parts.length > 0 ? old : undefined),
  });

/** A thing edge to edge with another that is held. */
export const edgesQuery = (
  here: Schemas["HeldRow"],
  held: Schemas["HeldRow"],
  { medium, light, judged }: Conditions,
  oneValue: boolean,
) =>
  queryOptions({
    queryKey: ["edges", here, held, oneValue, medium, light, judged],
    queryFn: () =>
      answer(
        client.POST("/api/edge-to-edge", {
          params: { query: { medium, light, judged } },
          body: { here, held, oneValue },
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** How a pile is brought to what is wanted. */
export const correctQuery = (
  wheel: number,
  have: string[],
  want: string[],
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["correct", wheel, have, want, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/correct", {
          params: { query: { wheel, have, want, medium, light, judged } },
        }),
      ),
    enabled: have.length > 0 && want.length > 0,
    staleTime: Infinity,
  });

/** How a pile is brought to a colour that was read, with any of some paints. */
export const correctToQuery = (
  wheel: number,
  have: string[],
  colour: string,
  paints: string[],
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["correct", wheel, have, colour, paints, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/correct", {
          params: { query: { wheel, have, colour, with: paints, medium, light, judged } },
        }),
      ),
    enabled: have.length > 0 && colour !== "",
    staleTime: Infinity,
  });

/** Where between two paints a mixture stands that was read. */
export const locateQuery = (
  wheel: number,
  a: string,
  b: string,
  colour: string,
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["locate", wheel, a, b, colour, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/locate", {
          params: { query: { wheel, a, b, colour, medium, light, judged } },
        }),
      ),
    enabled: colour !== "",
    staleTime: Infinity,
  });

export type Quietening = {
  parts: string[];
  with: string[];
  complement?: string;
  neighbour?: string;
  earth?: string;
};

/** A colour cooled or dulled in several ways. */
export const quietenQuery = (
  wheel: number,
  of: Quietening,
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["quieten", wheel, of, medium, light, judged],
    queryFn: () =>
      answer(
        client.GET("/api/quieten", { params: { query: { wheel, ...of, medium, light, judged } } }),
      ),
    enabled: of.parts.length > 0,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export const marksQuery = queryOptions({
  queryKey: ["marks"],
  queryFn: () => answer(client.GET("/api/pairings/marks")),
});

export const guessesQuery = queryOptions({
  queryKey: ["guesses"],
  queryFn: () => answer(client.GET("/api/guesses")),
});

/** The round of practice that is under way. */
export const practiceQuery = ({ medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["practice", medium, light, judged],
    queryFn: () =>
      answer(client.GET("/api/practice", { params: { query: { medium, light, judged } } })),
    placeholderData: keepPreviousData,
  });

export const compareQuery = (wheels: number[], { medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["compare", wheels, medium, light, judged],
    queryFn: () =>
      answer(client.GET("/api/compare", { params: { query: { wheels, medium, light, judged } } })),
    enabled: wheels.length > 0,
    placeholderData: keepPreviousData,
  });

/** The wanted colours, each matched with some systems. */
export const wantedQuery = (wheels: number[], { medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["wanted", wheels, medium, light, judged],
    queryFn: () =>
      answer(client.GET("/api/wanted", { params: { query: { wheels, medium, light, judged } } })),
    enabled: wheels.length > 0,
    placeholderData: (old: Schemas["WantedKept"][] | undefined) =>
      old?.every((w) => w.matches.length === wheels.length) ? old : undefined,
  });

export const comparisonsQuery = queryOptions({
  queryKey: ["comparisons"],
  queryFn: () => answer(client.GET("/api/comparisons")),
});

export type Choosing = {
  kind: "triad" | "split" | "double";
  from: "box" | "library";
  aim: "coverage" | "price" | "tubes" | "targets";
  careful: boolean;
  lasting: boolean;
  without: string[];
  contains: string[];
};

/**
 * What this tab's search goes by: each has a ticket of its own, so that ending one
 * that was left never ends the one that was begun after it.
 */
const drawn = () => Math.random().toString(36).slice(2);
let ticket = drawn();
const newTicket = () => (ticket = drawn());

/** How far this tab's search is. */
export const searchingQuery = queryOptions({
  queryKey: ["searching"],
  queryFn: () => answer(client.GET("/api/searches/{ticket}", { params: { path: { ticket } } })),
  refetchInterval: 300,
  gcTime: 0,
});

/** Ends this tab's search. */
export const endSearch = () =>
  answer(client.DELETE("/api/searches/{ticket}", { params: { path: { ticket } } }));

/** The best system of a kind. */
export const chooseQuery = (
  { kind, from, aim, careful, lasting, without, contains }: Choosing,
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: [
      "box",
      "choose",
      kind,
      from,
      aim,
      careful,
      lasting,
      without,
      contains,
      medium,
      light,
      judged,
    ],
    queryFn: ({ signal }) =>
      answer(
        client.POST("/api/choose", {
          signal,
          params: {
            query: {
              kind,
              from,
              aim,
              careful,
              lasting,
              ...(without.length > 0 && { without }),
              ...(contains.length > 0 && { contains }),
              ticket: newTicket(),
              medium,
              light,
              judged,
            },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** What replaces each tube of a kept system best. */
export const replaceQuery = (
  wheel: number,
  from: "box" | "library",
  tried: string[],
  { medium, light, judged }: Conditions,
) =>
  queryOptions({
    queryKey: ["box", "replace", wheel, from, tried, medium, light, judged],
    queryFn: ({ signal }) =>
      answer(
        client.POST("/api/replace", {
          signal,
          params: {
            query: { wheel, from, ...(tried.length > 0 && { tried }), medium, light, judged },
          },
        }),
      ),
    enabled: wheel > 0,
    placeholderData: keepPreviousData,
  });

export const predictionsQuery = (id: number) =>
  queryOptions({
    queryKey: ["predictions", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}/predictions", { params: { path: { id } } })),
  });

export const earlierQuery = (id: number) =>
  queryOptions({
    queryKey: ["earlier", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}/earlier", { params: { path: { id } } })),
  });

export const keptQuery = (id: number) =>
  queryOptions({
    queryKey: ["kept", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}", { params: { path: { id } } })),
  });

/** The paints that look so: of a family, by how they hide a stripe and where their tint leans. */
export const looksQuery = (query: { family: string; hiding: string; toward: string }) =>
  queryOptions({
    queryKey: ["looks", query],
    queryFn: () => answer(client.GET("/api/names/looks", { params: { query } })),
    staleTime: Infinity,
  });

/** What is usually behind the words on a tube. */
export const nameQuery = (words: string, sold: Schemas["NamedSet"]["sold"] = "artists") =>
  queryOptions({
    queryKey: ["name", words, sold],
    queryFn: () => answer(client.GET("/api/names", { params: { query: { words, sold } } })),
    staleTime: Infinity,
    retry: false,
  });

export const boxQuery = ({ medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["box", medium, light, judged],
    queryFn: () => answer(client.GET("/api/box", { params: { query: { medium, light, judged } } })),
    placeholderData: keepPreviousData,
  });

/** Whether a query is for the box itself, not for what is worked out of it. */
export const isBoxQuery = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey.length === 4;

export const besideQuery = ({ medium, light, judged }: Conditions, a: number, b: number) =>
  queryOptions({
    queryKey: ["box", "beside", medium, light, judged, a, b],
    queryFn: () =>
      answer(client.GET("/api/box/beside", { params: { query: { medium, light, judged, a, b } } })),
    placeholderData: keepPreviousData,
  });

export const labelQuery = (view: Conditions, text: string) =>
  queryOptions({
    queryKey: ["label", view.medium, view.light, view.judged, text],
    queryFn: () => answer(client.GET("/api/label", { params: { query: { ...view, text } } })),
    enabled: text.trim() !== "",
  });

export const previewQuery = (view: Conditions, origin: Origin | null, name: string) =>
  queryOptions({
    queryKey: ["preview", view.medium, view.light, view.judged, origin, name],
    queryFn: () =>
      answer(
        client.POST("/api/own/preview", {
          params: { query: view },
          body: { name, origin: origin! },
        }),
      ),
    enabled: origin !== null,
    staleTime: Infinity,
    placeholderData: (old: Preview | undefined) => (origin ? old : undefined),
  });

/** Whether server and database answer; asked more often while they do not. */
export function useReady() {
  return useQuery({
    queryKey: ["ready"],
    queryFn: async () => {
      try {
        return (await fetch("/readyz")).ok;
      } catch {
        return false;
      }
    },
    refetchInterval: (q) => (q.state.data === false ? 1500 : 15_000),
    retry: false,
  });
}

/** A sitting as it stands; what a service worker kept says nothing of the time. */
export const sittingQuery = (id: number) =>
  queryOptions({
    queryKey: ["sitting", id],
    queryFn: async ({ signal }) => {
      const asked = Date.now();
      const asking = client.GET("/api/sittings/{id}", { params: { path: { id } }, signal });
      const now = await answer(asking);
      if (!(await asking).response.headers.has("Kept-Here")) offsetOf(now.now, asked);
      // What a service worker kept, or was long under way, may be older than what is known here.
      const known = queryClient.getQueryData<Schemas["Sitting"]>(["sitting", id]);
      return known && known.revision > now.revision ? known : now;
    },
    refetchInterval: 60_000,
  });

/** What came of a sitting: expected, computed and read, why they differ, what the tubes turned out to be. */
export const sittingJournalQuery = (id: number) =>
  queryOptions({
    queryKey: ["sitting journal", id],
    queryFn: () => answer(client.GET("/api/sittings/{id}/journal", { params: { path: { id } } })),
    staleTime: 0,
    refetchInterval: whileWorking,
  });

export type ShelfPart = NonNullable<paths["/api/shelf"]["get"]["parameters"]["query"]>;

/** What was painted, the last first; a part of it where something is looked for. */
export const shelfQuery = (part: ShelfPart) =>
  queryOptions({
    queryKey: ["shelf", part],
    queryFn: () => answer(client.GET("/api/shelf", { params: { query: part } })),
    staleTime: 0,
    placeholderData: keepPreviousData,
  });

/** Two sittings beside each other. */
export const sittingsBesideQuery = (id: number, other: number) =>
  queryOptions({
    queryKey: ["sittings beside", id, other],
    queryFn: () =>
      answer(client.GET("/api/sittings/{id}/beside/{other}", { params: { path: { id, other } } })),
    staleTime: 0,
  });

/** What became of all that was expected. */
export const expectationsQuery = queryOptions({
  queryKey: ["expectations"],
  queryFn: () => answer(client.GET("/api/expectations")),
  staleTime: 0,
  refetchInterval: whileWorking,
});

/** What was taken into the box from readings. */
export const takingsQuery = queryOptions({
  queryKey: ["takings"],
  queryFn: () => answer(client.GET("/api/takings")),
  staleTime: 0,
});

/** A kept wheel beside what it would be with what its tubes turned out to be. */
export const redrawnQuery = (id: number) =>
  queryOptions({
    queryKey: ["redrawn", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}/redrawn", { params: { path: { id } } })),
    staleTime: 0,
  });

/** What the painter wanted to do otherwise when a wheel was painted last. */
export const reminderQuery = (id: number) =>
  queryOptions({
    queryKey: ["reminder", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}/reminder", { params: { path: { id } } })),
    staleTime: 0,
  });

/** What was read of a sitting, and its photos. */
export const sittingReadsQuery = (id: number) =>
  queryOptions({
    queryKey: ["sitting reads", id],
    queryFn: () => answer(client.GET("/api/sittings/{id}/readings", { params: { path: { id } } })),
  });

export const sittingsQuery = queryOptions({
  queryKey: ["sittings"],
  queryFn: () => answer(client.GET("/api/sittings")),
});

/** Sittings that were begun and not ended. */
export const underWayQuery = queryOptions({
  queryKey: ["under way"],
  queryFn: () => answer(client.GET("/api/under-way")),
});

/** How a wheel is painted; quick is what is known at once. */
export const planQuery = (
  wheel: number,
  system: Selection,
  { choices, bench, medium, light, judged }: Settings,
  sheet: BenchSheet,
  quick: boolean,
) =>
  queryOptions({
    queryKey: ["plan", wheel, system, choices, bench, sheet, medium, light, judged, quick],
    queryFn: ({ signal }) =>
      answer(
        client.POST("/api/plan", {
          params: { query: { medium, light, judged, wheel, quick } },
          body: { system, choices, bench: bench ?? {}, sheet },
          signal,
        }),
      ),
    staleTime: Infinity,
    placeholderData: quick ? keepPreviousData : undefined,
    refetchInterval: quick ? false : whileWorking,
  });

/** What to paint to be surer of a wheel's recipes. */
export const swatchesQuery = (
  wheel: number,
  system: Selection,
  { choices, bench, medium, light, judged }: Settings,
  { readBy, ofBox }: Pick<BenchSheet, "readBy" | "ofBox">,
) =>
  queryOptions({
    queryKey: ["surer", wheel, system, choices, bench, medium, light, judged, readBy, ofBox],
    queryFn: ({ signal }) =>
      answer(
        client.POST("/api/surer", {
          params: { query: { medium, light, judged, wheel } },
          body: { system, choices, bench: bench ?? {}, readBy, ofBox },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** A recipe counted out in a measure, as much of it as a slot takes. */
export const countedQuery = (
  wheel: number,
  parts: Ingredient[],
  { medium, light, judged }: Conditions,
  measure: Measure,
  one: number | undefined,
  times = 1,
) => {
  const said = parts.map((p) => ({
    paint: p.paint,
    parts: p.parts,
    letDown: p.letDown && { paint: p.letDown.paint, parts: p.letDown.parts },
    of: p.of?.map((o) => ({ paint: o.paint, parts: o.parts })),
  }));
  return queryOptions({
    queryKey: ["counted", wheel, said, medium, light, judged, measure, one, times],
    queryFn: () =>
      answer(
        client.POST("/api/counted", {
          params: { query: { medium, light, judged, wheel } },
          body: { parts: said, measure, one, times },
        }),
      ),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
};
