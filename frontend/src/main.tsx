import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { ExplainedError, isCrowded } from "./api/client";
import { App } from "./App";
import { ImportProvider } from "./places/takes/list/imports";
import "./theme/theme.css";
import { NoticeProvider } from "./ui/notices";
import { reloadedLately } from "./ui/reloadedLately";
import { UnitsProvider } from "./ui/useUnits";

const MOST_TRIES = 2;
/** For a server that is busy with much else. */
const [MOST_WAITS, WAIT_MS] = [60, 500];

const queries = new QueryClient({
  defaultOptions: {
    // The server is on this computer: it answers without any network.
    mutations: { networkMode: "always" },
    queries: {
      networkMode: "always",
      retry: (tries, error) =>
        isCrowded(error)
          ? tries < MOST_WAITS
          : !(error instanceof ExplainedError) && tries < MOST_TRIES,
      retryDelay: (tries, error) => (isCrowded(error) ? WAIT_MS : 1000 * 2 ** tries),
      refetchOnWindowFocus: true,
    },
  },
});

// Another version was put in place while this page was open: what it wants to load is gone. Once, so
// that a file that is really missing does not reload it for ever.
window.addEventListener("vite:preloadError", (event) => {
  if (!reloadedLately()) {
    event.preventDefault();
    location.reload();
  }
});

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <UnitsProvider>
        <NoticeProvider>
          <BrowserRouter>
            <ImportProvider>
              <App />
            </ImportProvider>
          </BrowserRouter>
        </NoticeProvider>
      </UnitsProvider>
    </QueryClientProvider>
  </StrictMode>,
);
