import "@fontsource-variable/source-sans-3/wght.css";
import "./app/global.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { queries } from "./api/client";
import { askAhead } from "./api/hooks";
import { router } from "./app/router";
import { theme } from "./app/theme";

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
