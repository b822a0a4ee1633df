import "@fontsource-variable/schibsted-grotesk";
import "@fontsource-variable/spline-sans-mono";
import { fonts } from "./theme";

const PATIENCE_MS = 3000;

/**
 * Both fonts are here, or did not come in time. What is drawn before they are moves when they come: a button is
 * elsewhere when it is pressed than where it was aimed at.
 */
export async function fontsReady(): Promise<void> {
  const here = Object.values(fonts).map((family) => document.fonts.load(`1em ${family}`));
  await Promise.race([Promise.allSettled(here), new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
}
