import { useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";

/** The starter shelf: generic gear to pick from. */
export function useShelf() {
  return useQuery({ queryKey: ["shelf"], queryFn: () => dataOf(api.GET("/api/shelf")), staleTime: Infinity });
}
