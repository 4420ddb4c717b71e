import { keepPreviousData, QueryClient, queryOptions, useQuery } from "@tanstack/react-query";
import { answer, client, Refused, type Conditions, type Origin, type Preview, type Roles, type Settings } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 60_000,
      refetchOnWindowFocus: false,
      networkMode: "always",
      // What is lost for the moment is asked for again until it is back.
      retry: (count, error) => error instanceof Refused && error.lost && count < 1000,
      retryDelay: 1500,
    },
    mutations: { networkMode: "always" },
  },
});

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => answer(client.GET("/api/session")),
});

export const paintersQuery = queryOptions({
  queryKey: ["painters"],
  queryFn: () => answer(client.GET("/api/painters")),
});

export const wheelsQuery = queryOptions({
  queryKey: ["wheels"],
  queryFn: () => answer(client.GET("/api/wheels")),
});

export const paintsQuery = ({ medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["paints", medium, light, judged],
    queryFn: () => answer(client.GET("/api/paints", { params: { query: { medium, light, judged } } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export const wheelQuery = (roles: Roles, settings: Settings) =>
  queryOptions({
    queryKey: ["wheel", roles, settings],
    queryFn: () => answer(client.GET("/api/wheel", { params: { query: { ...roles, ...settings } } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export const keptQuery = (id: number) =>
  queryOptions({
    queryKey: ["kept", id],
    queryFn: () => answer(client.GET("/api/wheels/{id}", { params: { path: { id } } })),
  });

export const boxQuery = ({ medium, light, judged }: Conditions) =>
  queryOptions({
    queryKey: ["box", medium, light, judged],
    queryFn: () => answer(client.GET("/api/box", { params: { query: { medium, light, judged } } })),
    placeholderData: keepPreviousData,
  });

export const besideQuery = ({ medium, light, judged }: Conditions, a: number, b: number) =>
  queryOptions({
    queryKey: ["box", "beside", medium, light, judged, a, b],
    queryFn: () => answer(client.GET("/api/box/beside", { params: { query: { medium, light, judged, a, b } } })),
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
    queryFn: () => answer(client.POST("/api/own/preview", { params: { query: view }, body: { name, origin: origin! } })),
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
