import { useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../api/client";

/** Who this page is to the program: on its own machine, or a device of the network. */
export function useHere() {
  const here = useQuery({
    queryKey: ["here"],
    queryFn: () => dataOf(api.GET("/api/network/here")),
    staleTime: Infinity,
  });
  return here.data ?? null;
}
