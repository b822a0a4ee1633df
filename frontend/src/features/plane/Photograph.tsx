import { memo, useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { useBench } from "../../shot/ShotContext";
import { planeOf, withPlane } from "../../shot/moves";
import type { ShotEditing } from "../../shot/useShot";
import { usePictureShape } from "./usePictureShape";

/** Share by which the two shapes may differ: cameras leave out some pixels at the edge. */
const ALIKE = 0.02;

const Said = styled.span`
  flex: 1 1 100%;
  order: 1;
  text-align: right;
  color: ${({ theme }) => theme.trouble};
`;

/** A framing photograph to place points on: loaded, kept with the program, taken away again. */
export function Photograph() {
  const { shot, plan, edit } = useBench();
  const reach = plan?.reach;
  return (
    <Loading
      there={planeOf(shot).photograph}
      frame={reach ? reach.sensor_width_mm / reach.sensor_height_mm : null}
      edit={edit}
    />
  );
}

interface LoadingProps {
  /** Its name with the program, or null. */
  there: string | null;
  /** Width of the frame by its height; null: not known. */
  frame: number | null;
  edit: ShotEditing["edit"];
}

const Loading = memo(function Loading({ there, frame, edit }: LoadingProps) {
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const shape = usePictureShape(there ? `/api/photographs/${there}` : null);
  const unlike = shape !== null && frame !== null && Math.abs(shape / frame - 1) > ALIKE;
  const load = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setSaid(null);
    try {
      const response = await fetch("/api/photographs", {
        method: "POST",
        body: file,
        headers: { "Content-Type": "application/octet-stream" },
      });
      const answer = (await response.json()) as { photograph?: string; detail?: string; remedy?: string };
      if (response.ok && answer.photograph) {
        const photograph = answer.photograph;
        edit((draft) => withPlane(draft, { photograph }));
      } else setSaid([answer.detail, answer.remedy].filter(Boolean).join(" "));
    } catch {
      setSaid("The program is not answering. Is it still running in its terminal?");
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <FileTrigger
        acceptedFileTypes={["image/jpeg", "image/png", "image/tiff"]}
        onSelect={(files) => void load(files?.[0])}
      >
        <Button isPending={busy}>
          {busy ? "Reading…" : there ? "Another photograph" : "Framing photograph"}
        </Button>
      </FileTrigger>
      {there ? (
        <Button data-weight="quiet" onPress={() => edit((draft) => withPlane(draft, { photograph: null }))}>
          Take it away
        </Button>
      ) : null}
      {unlike ? (
        <Said>
          The photograph has another shape than the frame ({shape.toFixed(2)} to 1, not {frame.toFixed(2)}):
          it is drawn whole, in the middle.{" "}
          {(shape - 1) * (frame - 1) < 0
            ? "Was the camera turned otherwise for it?"
            : "Was it cropped, or taken with another part of the sensor?"}
        </Said>
      ) : null}
      {said ? <Said role="alert">{said}</Said> : null}
    </>
  );
});
