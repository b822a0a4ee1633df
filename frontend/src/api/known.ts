import type { QueryClient, QueryKey } from "@tanstack/react-query";

/** What the answer to a change says, put in place of what was known. A question that is still under way may be answered
 *  by how things stood before the change: its answer is not taken any more. */
export async function putKnown<T>(
  client: QueryClient,
  key: QueryKey,
  told: T | ((last: T | undefined) => T | undefined),
) {
  await client.cancelQueries({ queryKey: key, exact: true });
  client.setQueryData<T>(key, told);
}
