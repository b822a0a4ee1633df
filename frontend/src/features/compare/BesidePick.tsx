import { useQuery } from "@tanstack/react-query";
import { api, dataOf } from "../../api/client";
import { mostOf } from "../../api/fields";
import { Pick } from "../../controls/Pick";
import { useBench } from "../../shot/ShotContext";

const MOST = mostOf("/beside");

/** Another shot, such as the same subject by another rig: its way stands beside those of this one. */
export function BesidePick({ shotId }: { shotId: string }) {
  const { shot, edit } = useBench();
  const list = useQuery({
    queryKey: ["shots", "to stand beside"],
    queryFn: () => dataOf(api.GET("/api/shots", { params: { query: { sort: "name" } } })),
    refetchOnMount: "always",
  });
  const taken = new Set([shotId, ...shot.beside.map((each) => each.shot_id)]);
  const options = (list.data?.shots ?? [])
    .filter((line) => !line.damaged && !taken.has(line.shot_id))
    .map((line) => ({ id: line.shot_id, label: line.name }));
  if (shot.beside.length >= MOST || !options.length) return null;
  return (
    <div style={{ width: 210 }}>
      <Pick
        label="A way of another shot"
        value={null}
        placeholder="choose a shot"
        options={options}
        onChange={(shot_id) =>
          edit((draft) => ({ ...draft, beside: [...draft.beside, { shot_id, way: null }] }))
        }
      />
    </div>
  );
}
