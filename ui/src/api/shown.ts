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

/** A photo of a sitting that is shown under a token. */
export const shownPhotoQuery = (token: string, photo: number) =>
  queryOptions({
    queryKey: ["shown photo", token, photo],
    queryFn: async () => {
      const got = await client.GET("/api/shown/photos/{photo}", {
        params: { header: { Showing: token }, path: { photo } },
        credentials: "omit",
        parseAs: "blob",
      });
      if (!got.response.ok) throw new Refused(got.response.status, "The photo is not shown.");
      return got.data as unknown as Blob;
    },
    retry: false,
    staleTime: Infinity,
  });

/** Looks again at what is shown whenever that may have changed, until it is stopped or shown no more. */
export const lookOn = (token: string) =>
  hearStream(
    (signal) => client.GET("/api/shown/changes", { ...asked(token), parseAs: "stream", signal }),
    () => void queryClient.invalidateQueries(exhibitQuery(token)),
  );
