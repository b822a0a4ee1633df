import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { fontsReady } from "./look/fonts";

const root = document.getElementById("root");
if (root === null) throw new Error("index.html has no #root");
const page = createRoot(root);
void fontsReady().then(() =>
  page.render(
    <StrictMode>
      <App />
    </StrictMode>,
  ),
);
