import { useQuery } from "@tanstack/react-query";
import { Link } from "react-aria-components";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { Shot, WayId } from "../../api/types";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { usePreferences } from "../../look/preferences";
import { useBench } from "../../shot/ShotContext";
import { Column } from "./Column";
import type { Looked } from "./usePreview";

const Foot = styled.div`
  display: grid;
  gap: 4px;
  margin-top: 8px;
`;

interface OtherColumnProps {
  other: Shot["beside"][number];
  looked: Looked;
  onLook: (fromLeft: number, fromTop: number) => void;
}

/** A way of another shot, worked out as that shot is now. */
export function OtherColumn({ other, looked, onLook }: OtherColumnProps) {
  const { edit } = useBench();
  const { units } = usePreferences();
  const told = useQuery({
    queryKey: ["beside", other.shot_id, units],
    queryFn: async () => {
      const kept = await dataOf(
        api.GET("/api/shots/{shot_id}", { params: { path: { shot_id: other.shot_id } } }),
      );
      const plan = await dataOf(api.POST("/api/plan", { params: { query: { units } }, body: kept.shot }));
      return { kept, plan };
    },
    refetchOnMount: "always",
    retry: false,
  });
  const set = (way: WayId | null) =>
    edit((draft) => ({
      ...draft,
      beside: draft.beside.map((each) => (each.shot_id === other.shot_id ? { ...each, way } : each)),
    }));
  const remove = (
    <Button
      data-weight="quiet"
      onPress={() =>
        edit((draft) => ({
          ...draft,
          beside: draft.beside.filter((each) => each.shot_id !== other.shot_id),
        }))
      }
    >
      Take it away
    </Button>
  );
  if (!told.data) {
    return (
      <article>
        <p>{told.isError ? sentenceOf(told.error) : "Working it out…"}</p>
        {remove}
      </article>
    );
  }
  const { kept, plan } = told.data;
  const possible = plan.ways.filter((each) => each.frames > 0);
  const wanted = other.way ?? kept.shot.chosen_way;
  const way = possible.find((each) => each.id === wanted) ?? possible.find((each) => each.recommended);
  const name = <Link href={`/shots/${other.shot_id}/subject`}>{kept.shot.name}</Link>;
  if (!way) {
    return (
      <article>
        {name}
        <p>{plan.verdict.headline}</p>
        {remove}
      </article>
    );
  }
  const foot = (
    <Foot>
      <Pick
        label="Its way"
        value={way.id}
        options={possible.map((each) => ({ id: each.id, label: each.title }))}
        onChange={(id) => set(id as WayId)}
      />
      {remove}
    </Foot>
  );
  return (
    <Column shot={kept.shot} plan={plan} way={way} of={name} foot={foot} looked={looked} onLook={onLook} />
  );
}
