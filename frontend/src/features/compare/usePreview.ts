/** The picture of a way, asked for when the shot rests; one request a way at a time, the latest wins. */
import { useEffect, useState } from "react";
import type { Shot, WayId } from "../../api/types";

export type Zoom = "frame" | "pixels" | "double";

export interface Looked {
  zoom: Zoom;
  fromLeft: number;
  fromTop: number;
}

export interface Preview {
  url: string | null;
  /** Why there is none. */
  said: string | null;
  busy: boolean;
}

const REST_MS = 250;

export function usePreview(shot: Shot, way: WayId, looked: Looked): Preview {
  const [preview, setPreview] = useState<Preview>({ url: null, said: null, busy: true });
  const { zoom, fromLeft, fromTop } = looked;
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(() => {
      void ask({ shot, way, zoom, from_left: fromLeft, from_top: fromTop }, stop.signal).then((found) => {
        if (stop.signal.aborted) {
          if (found.url) URL.revokeObjectURL(found.url);
          return;
        }
        setPreview((last) => {
          if (last.url) URL.revokeObjectURL(last.url);
          return { ...found, busy: false };
        });
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [shot, way, zoom, fromLeft, fromTop]);
  return preview;
}

async function ask(body: object, signal: AbortSignal): Promise<Omit<Preview, "busy">> {
  try {
    const response = await fetch("/api/preview", {
      method: "POST",
      body: JSON.stringify(body),
      headers: { "Content-Type": "application/json" },
      signal,
    });
    if (response.ok) return { url: URL.createObjectURL(await response.blob()), said: null };
    const problem = (await response.json()) as { detail?: string };
    return { url: null, said: problem.detail ?? "There is no picture of this way." };
  } catch {
    return { url: null, said: "The program is not answering. Is it still running in its terminal?" };
  }
}
