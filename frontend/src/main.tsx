import "./theme/mantine.css";
import "./theme/paper.css";
import "./theme/tokens.css";
import "./theme/states.css";
import { MantineProvider } from "@mantine/core";
import { MutationCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { afterLoss } from "./api/afterLoss";
import { againAfter } from "./api/again";
import { tellZone } from "./api/zone";
import { App } from "./app/App";
import { forgetStayingDeeds } from "./offline/deeds";
import { nameTab } from "./offline/tab";
import { isNewest, keepProgram } from "./offline/worker";
import { theme } from "./theme/theme";

const client: QueryClient = new QueryClient({
  mutationCache: new MutationCache({
    onError: (error) => void afterLoss(client, error),
    // most acts are a moment of the player's years
    onSuccess: () => void client.invalidateQueries({ queryKey: ["timeline"] }),
  }),
  defaultOptions: {
    // the program asks whether or not the browser believes in a connection: the answer tells
    queries: {
      retry: false,
      refetchInterval: againAfter,
      refetchOnWindowFocus: false,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

tellZone();
const root = document.getElementById("root");
if (root) {
  const newest = isNewest(); // before anything reads the address
  await nameTab();
  forgetStayingDeeds();
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} defaultColorScheme="light">
        <QueryClientProvider client={client}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
  void keepProgram(newest);
}
