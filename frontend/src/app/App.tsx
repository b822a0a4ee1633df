import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { I18nProvider, RouterProvider as AriaRouter } from "react-aria-components";
import { createBrowserRouter, Outlet, RouterProvider, useHref, useLocation, useNavigate } from "react-router";
import { ThemeProvider } from "styled-components";
import { EnterPage } from "../features/network/EnterPage";
import { ShotList } from "../features/shots/ShotList";
import { GlobalStyle } from "../look/GlobalStyle";
import { NothingHere, RouteFault } from "./RouteFault";
import { PreferencesProvider, usePreferences } from "../look/preferences";
import { themes } from "../look/theme";
import { useHere } from "../shot/useHere";

// The server is most often on this very machine: it answers while the browser says that there is no network.
const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, staleTime: 5_000, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

const ENTER = "/enter";

function Root() {
  const navigate = useNavigate();
  const here = useHere();
  const { pathname } = useLocation();
  const isStranger = here !== null && !here.this_machine && here.name === null;
  // Where the code is entered anyway nothing changes by the answer: a name typed meanwhile would be lost.
  return (
    <AriaRouter navigate={navigate} useHref={useHref}>
      {isStranger && pathname !== ENTER ? <EnterPage /> : <Outlet />}
    </AriaRouter>
  );
}

// Every page but the list of shots is loaded when it is first opened.
const router = createBrowserRouter([
  {
    element: <Root />,
    errorElement: <RouteFault />,
    hydrateFallbackElement: <></>,
    children: [
      { path: "/", element: <ShotList /> },
      { path: ENTER, element: <EnterPage /> },
      {
        path: "/devices",
        lazy: async () => ({ Component: (await import("../features/network/DevicesPage")).DevicesPage }),
      },
      {
        path: "/kit",
        lazy: async () => ({ Component: (await import("../features/kit/KitPage")).KitPage }),
      },
      {
        path: "/notebook",
        lazy: async () => ({ Component: (await import("../features/log/NotebookPage")).NotebookPage }),
      },
      {
        path: "/practice",
        lazy: async () => ({ Component: (await import("../features/practice/PracticePage")).PracticePage }),
      },
      {
        path: "/trials",
        lazy: async () => ({ Component: (await import("../features/trials/TrialsPage")).TrialsPage }),
      },
      {
        path: "/shots/:shotId/sheet",
        lazy: async () => ({ Component: (await import("../features/sheet/RunSheet")).RunSheet }),
      },
      {
        path: "/shots/:shotId/ruler",
        lazy: async () => ({ Component: (await import("../features/ruler/RulerPage")).RulerPage }),
      },
      {
        path: "/shots/:shotId/:station?",
        lazy: async () => ({ Component: (await import("../features/bench/ShotPage")).ShotPage }),
      },
      { path: "*", element: <NothingHere /> },
    ],
  },
]);

function Themed() {
  const { theme } = usePreferences();
  return (
    <ThemeProvider theme={themes[theme]}>
      <GlobalStyle />
      <RouterProvider router={router} />
    </ThemeProvider>
  );
}

export function App() {
  return (
    <I18nProvider locale="en-GB">
      <QueryClientProvider client={queries}>
        <PreferencesProvider>
          <Themed />
        </PreferencesProvider>
      </QueryClientProvider>
    </I18nProvider>
  );
}
