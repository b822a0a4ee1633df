import { api, dataOf } from "./client";

/** A file taken in, into the folder of its batch (32 hexadecimal digits): the folder. */
export async function bringFile(batch: string, file: File): Promise<string> {
  const brought = await dataOf(
    api.PUT("/api/brought/{batch}/{name}", {
      params: { path: { batch, name: file.name } },
      body: file as never,
      bodySerializer: () => file,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );
  return brought.folder;
}
