import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";
import type { LogEntry, LogNote } from "../api/types";

const KEY = "log";
const NONE: LogEntry[] = [];

/** The notebook: all of it, or one shot's, or what holds some words; asked anew once `asOf`, a run's state, is another. */
export function useLog({
  shot = "",
  words = "",
  day = "",
  asOf = "",
}: { shot?: string; words?: string; day?: string; asOf?: string } = {}) {
  const client = useQueryClient();
  const list = useQuery({
    queryKey: [KEY, shot, words, day, asOf],
    placeholderData: (last) => last,
    // Runs write themselves in: what was asked a moment ago may lack the last one.
    refetchOnMount: "always",
    queryFn: () => dataOf(api.GET("/api/log", { params: { query: { shot, words, day } } })),
  });
  const note = useMutation({
    mutationFn: ({ entry, note: written }: { entry: LogEntry; note: LogNote }) =>
      dataOf(
        api.PUT("/api/log/{entry_id}/note", {
          params: { path: { entry_id: entry.entry_id } },
          body: { note: written, note_number: entry.note_number },
        }),
      ),
    onSettled: () => client.invalidateQueries({ queryKey: [KEY] }),
  });
  const asThen = useMutation({
    mutationFn: (entry: LogEntry) =>
      dataOf(api.POST("/api/log/{entry_id}/as-then", { params: { path: { entry_id: entry.entry_id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["shots"] }),
  });
  return {
    entries: list.data?.entries ?? NONE,
    words: list.data?.words ?? [],
    loading: list.isLoading,
    failed: list.error,
    note,
    asThen,
  };
}

export type LogHeld = ReturnType<typeof useLog>;
