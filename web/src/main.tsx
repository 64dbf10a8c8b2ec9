import "@fontsource-variable/source-sans-3/wght.css";
import "./app/global.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { queries, Refusal, saving } from "./api/client";
import { askAhead } from "./api/hooks";
import { keepHand } from "./app/hand";
import { router } from "./app/router";
import { theme } from "./app/theme";
import { COMMAND, refusals } from "./fields/refusals";

keepHand();
saving.subscribe(() => {
  if (saving.get().state === "saved") refusals.drop(COMMAND);
});
// a command that was refused, and that nobody else tells of
window.addEventListener("unhandledrejection", (event) => {
  if (!(event.reason instanceof Refusal)) return;
  event.preventDefault();
  refusals.add({ id: COMMAND, label: "The last command", message: event.reason.message, go: () => refusals.drop(COMMAND) });
});
askAhead(queries, location.pathname);
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ConfigProvider theme={theme} button={{ autoInsertSpace: false }}>
        <AntApp>
          <RouterProvider router={router} />
        </AntApp>
      </ConfigProvider>
    </QueryClientProvider>
  </StrictMode>,
);
