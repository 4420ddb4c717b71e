import "@fontsource/proza-libre/latin-400.css";
import "@fontsource/proza-libre/latin-ext-400.css";
import "@fontsource/proza-libre/latin-500.css";
import "@fontsource/proza-libre/latin-600.css";
import "@fontsource/b612/latin-400.css";
import "@fontsource/b612/latin-700.css";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { QueryClientProvider } from "@tanstack/react-query";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { queryClient, sessionQuery } from "./api/queries";
import { shownAt } from "./api/shown";
import { App } from "./app/App";
import { Surround } from "./app/surround";

// Before anything is drawn that waits for it; to whom something is shown nobody asks.
if (window.location.pathname !== shownAt) void queryClient.prefetchQuery(sessionQuery);

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;

createRoot(document.getElementById("root")!).render(
  <CacheProvider value={createCache({ key: "g", nonce })}>
    <Surround>
      <QueryClientProvider client={queryClient}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </Surround>
  </CacheProvider>,
);
