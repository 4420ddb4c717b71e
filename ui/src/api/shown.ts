import { queryOptions } from "@tanstack/react-query";
import { answer, client, Refused, type Schemas } from "./client";
import { hearStream } from "./hearing";
import { queryClient } from "./queries";

export type Exhibit = Schemas["Exhibit"];

/** The page of whatever is shown; what stands behind its # no server is told. */
export const shownAt = "/shown";

const again = 2000; // ms

/** Of what is shown under a token: nothing of whoever looks goes with it. */
const asked = (token: string) => ({
  params: { header: { Showing: token } },
  credentials: "omit" as const,
});

/** What is shown under a token; Refused with 404 where nothing is, or nothing any more. */
export const exhibitQuery = (token: string) =>
  queryOptions({
    queryKey: ["shown", token],
    queryFn: () => answer(client.GET("/api/shown", asked(token))),
    retry: (_, why) => !(why instanceof Refused && why.status === 404),
    retryDelay: again,
    staleTime: Infinity,
  });

/** Looks again at what is shown whenever that may have changed, until it is stopped or shown no more. */
export const lookOn = (token: string) =>
  hearStream(
    (signal) => client.GET("/api/shown/changes", { ...asked(token), parseAs: "stream", signal }),
    () => void queryClient.invalidateQueries(exhibitQuery(token)),
  );
