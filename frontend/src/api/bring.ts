import { api, dataOf } from "./client";
import type { Brought } from "./types";

/** A file taken in, into the folder of its batch (32 hexadecimal digits): the folder, and for how long it is kept. */
export async function bringFile(batch: string, file: File): Promise<Brought> {
  return dataOf(
    api.PUT("/api/brought/{batch}/{name}", {
      params: { path: { batch, name: file.name } },
      body: file as never,
      bodySerializer: () => file,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );
}
