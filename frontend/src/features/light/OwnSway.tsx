import { useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import { Button } from "../../controls/Button";
import { useShotField } from "../../shot/fields";

/** The sway of one's own hands, where a trial of it is believed: taken over with one press. */
export function OwnSway() {
  const { value, set } = useShotField<number | null>("/steadiness/hand_sways_mm");
  const told = useQuery({
    queryKey: ["practice"],
    queryFn: () => dataOf(api.GET("/api/practice/results")),
  }).data;
  const own = told?.own_sway_mm ?? null;
  if (own === null || own === value) return null;
  return <Button onPress={() => set(own)}>Take mine: {told?.own_sway_words}</Button>;
}
