import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { Gear, Shot, TwoTubesAnswer } from "../../api/types";
import { Button } from "../../controls/Button";
import { Fold } from "../../controls/Fold";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import { figures } from "../../units/format";
import { AnswerBox, Fields, Lead, Wide } from "../../controls/panel";
import type { Editing } from "../../shot/editing/useEditing";
import { nameOf } from "../../gear/words";

const Trouble = styled.p`
  margin: 8px 0 12px;
  color: ${({ theme }) => theme.trouble};
`;

type At = "infinity" | "closest";

/** The lens's own numbers from two frames with different tubes, its ring left where it was. */
export function TwoTubes({ editing }: { editing: Editing<Shot> }) {
  const [isOpen, setOpen] = useState(false);
  const lens = editing.draft.rig.find((each) => each.gear.kind === "lens")?.gear;
  return (
    <Fold title="Measure the lens with two tubes" isOpen={isOpen} onOpenChange={setOpen}>
      {lens?.kind === "lens" ? (
        <Asking editing={editing} lens={lens} />
      ) : (
        <Lead>This rig has no prime lens.</Lead>
      )}
    </Fold>
  );
}

function Asking({ editing, lens }: { editing: Editing<Shot>; lens: Extract<Gear, { kind: "lens" }> }) {
  const measured = editing.draft.measured;
  const [values, setValues] = useState({
    e1: 0,
    m1: measured?.magnification ?? null,
    e2: 12,
    m2: null as number | null,
    stops: null as number | null,
  });
  const [at, setAt] = useState<At>("infinity");
  const work = useMutation({
    mutationFn: ({ m1, m2 }: { m1: number; m2: number }) =>
      dataOf(
        api.POST("/api/ruler/two-tubes", {
          body: {
            first: { extension_mm: values.e1, magnification: m1, uncertainty: 0.001 * m1 },
            second: { extension_mm: values.e2, magnification: m2, uncertainty: 0.001 * m2 },
            stops_longer: values.stops,
            stops_uncertainty: 0.1,
          },
        }),
      ),
  });
  const set = (change: Partial<typeof values>) => {
    work.reset();
    setValues({ ...values, ...change });
  };
  const take = useTaken(editing, lens, at);
  const field = (label: string, name: "e1" | "e2") => (
    <QuantityField
      label={label}
      kind="length"
      value={values[name]}
      step={by(1, 5)}
      onChange={(value) => set({ [name]: value })}
    />
  );
  const sizeField = (label: string, name: "m1" | "m2") => (
    <QuantityField
      label={label}
      kind="ratio"
      value={values[name]}
      step={byShare}
      onChange={(value) => set({ [name]: value > 0 ? value : null })}
      onEmpty={() => set({ [name]: null })}
      emptyHint="from a ruler"
    />
  );
  const { m1, m2 } = values;
  return (
    <>
      <Lead>
        Two frames of a ruler with {nameOf(lens)}, the focus ring not touched between them, no close-up lens
        and no converter.
      </Lead>
      <Fields>
        {field("First tube", "e1")}
        {sizeField("Size then", "m1")}
        {field("Second tube", "e2")}
        {sizeField("Size with it", "m2")}
        <Wide>
          <QuantityField
            label="Second frame needed more light"
            kind="plain"
            value={values.stops}
            step={by(0.1, 0.5)}
            onChange={(stops) => set({ stops })}
            onEmpty={() => set({ stops: null })}
            emptyHint="not metered"
            hint="stops, at the same marked aperture"
          />
        </Wide>
        <Wide>
          <Segments
            label="The ring stood at"
            value={at}
            options={[
              { id: "infinity", label: "infinity" },
              { id: "closest", label: "closest focus" },
            ]}
            onChange={setAt}
          />
        </Wide>
        <Wide>
          <Button
            isDisabled={m1 === null || m2 === null || work.isPending}
            onPress={() => m1 !== null && m2 !== null && work.mutate({ m1, m2 })}
          >
            Work out the lens
          </Button>
        </Wide>
      </Fields>
      {work.isError ? <Trouble role="alert">{sentenceOf(work.error)}</Trouble> : null}
      {work.data ? <LensFound answer={work.data} take={take} /> : null}
    </>
  );
}

/** What was found, put into the shot and the kit. */
function useTaken(editing: Editing<Shot>, lens: Extract<Gear, { kind: "lens" }>, at: At) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (answer: TwoTubesAnswer) => {
      const change = numbersOf(answer, at);
      editing.edit((draft) => ({
        ...draft,
        rig: draft.rig.map((each) =>
          each.gear.kind === "lens" ? { ...each, gear: { ...each.gear, ...change } } : each,
        ),
      }));
      const kept = await dataOf(api.GET("/api/kit"));
      const pieces = kept.kit.pieces.map((piece) =>
        piece.gear.kit_id === lens.kit_id && piece.gear.kind === "lens"
          ? { ...piece, gear: { ...piece.gear, ...change } }
          : piece,
      );
      queries.setQueryData(
        ["kit"],
        await dataOf(
          api.PUT("/api/kit", { body: { base_revision: kept.revision, kit: { ...kept.kit, pieces } } }),
        ),
      );
    },
  });
}

/** The lens at work, to be taken for good. */
function LensFound({ answer, take }: { answer: TwoTubesAnswer; take: ReturnType<typeof useTaken> }) {
  return (
    <>
      <AnswerBox>
        <strong>
          {figures(answer.focal_length_mm, 4)} ± {figures(answer.focal_length_uncertainty_mm, 2)} mm
        </strong>
        focal length at work
        {answer.pupil_magnification === null
          ? "."
          : `; pupil magnification ${figures(answer.pupil_magnification, 3)} ± ${figures(answer.pupil_uncertainty ?? 0, 1)}.`}
      </AnswerBox>
      {answer.findings.map((finding) => (
        <Trouble key={finding.code}>
          {finding.message} {finding.remedy}
        </Trouble>
      ))}
      <Button isDisabled={take.isPending || take.isSuccess} onPress={() => take.mutate(answer)}>
        {take.isSuccess ? "Taken for this lens" : "Take these for this lens"}
      </Button>
      {take.isError ? <Trouble role="alert">{sentenceOf(take.error)}</Trouble> : null}
    </>
  );
}

function numbersOf(answer: TwoTubesAnswer, at: At) {
  const focal = answer.focal_length_mm;
  return {
    ...(at === "infinity"
      ? { measured_focal_length_mm: focal }
      : { measured_closest_focal_length_mm: focal }),
    ...(answer.pupil_magnification === null
      ? {}
      : { measured_pupil_magnification: answer.pupil_magnification }),
  };
}
