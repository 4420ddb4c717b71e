import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import createClient from "openapi-fetch";
import { createRoot } from "react-dom/client";
import type { paths } from "./api/schema";

const client = createClient<paths>();

function Page() {
  const painters = useQuery({
    queryKey: ["painters"],
    queryFn: async () => (await client.GET("/api/painters")).data?.painters ?? [],
  });
  return (
    <main>
      <h1>Who is painting?</h1>
      {painters.data?.map((p) => <p key={p.id}>{p.name}</p>)}
    </main>
  );
}

createRoot(document.getElementById("root")!).render(
  <QueryClientProvider client={new QueryClient()}>
    <Page />
  </QueryClientProvider>,
);
