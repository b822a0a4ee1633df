import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, dataOf } from "../../api/client";
import { LinkButton } from "../../controls/Button";
import { Lead } from "../../controls/panel";
import { Pick } from "../../controls/Pick";
import { usePreferences } from "../../look/preferences";

/** A ruler and two tubes are measured through the rig of a shot: which one. */
export function AtAShot() {
  const { units } = usePreferences();
  const [chosen, setChosen] = useState<string | null>(null);
  const shots = useQuery({
    queryKey: ["shots", units, "to measure"],
    queryFn: () => dataOf(api.GET("/api/shots", { params: { query: { units, removed: "no" } } })),
  }).data?.shots;
  if (shots?.length === 0) return <Lead>There is no shot yet whose rig could be measured.</Lead>;
  return (
    <>
      <Pick
        label="Through the rig of"
        value={chosen}
        options={(shots ?? []).map((shot) => ({ id: shot.shot_id, label: shot.name }))}
        onChange={setChosen}
      />
      {chosen ? <LinkButton href={`/shots/${chosen}/ruler`}>To its ruler</LinkButton> : null}
    </>
  );
}
