import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { Gear, Shot, TwoTubesAnswer } from "../../api/types";
import { Button } from "../../controls/Button";
import { Fold } from "../../controls/Fold";
import { Pick } from "../../controls/Pick";
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
    u1: measured ? (100 * measured.uncertainty) / measured.magnification : null,
    e2: 12,
    m2: null as number | null,
    u2: null as number | null,
    stops: null as number | null,
  });
  const [at, setAt] = useState<At>("infinity");
  const work = useMutation({
    mutationFn: ({ m1, u1, m2, u2 }: { m1: number; u1: number; m2: number; u2: number }) =>
      dataOf(
        api.POST("/api/ruler/two-tubes", {
          body: {
            first: { extension_mm: values.e1, magnification: m1, uncertainty: (u1 / 100) * m1 },
            second: { extension_mm: values.e2, magnification: m2, uncertainty: (u2 / 100) * m2 },
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
  const { m1, u1, m2, u2 } = values;
  return (
    <>
      <Lead>
        Two frames of a ruler with {nameOf(lens)}, the focus ring not touched between them, no close-up lens
        and no converter.
      </Lead>
      <Fields>
        <OneFrame
          tube="First tube"
          size="Size then"
          extension={values.e1}
          seen={{ size: m1, doubt: u1 }}
          onTube={(e1) => set({ e1 })}
          onSeen={({ size, doubt }) => set({ m1: size, u1: doubt })}
        />
        <OneFrame
          tube="Second tube"
          size="Size with it"
          extension={values.e2}
          seen={{ size: m2, doubt: u2 }}
          onTube={(e2) => set({ e2 })}
          onSeen={({ size, doubt }) => set({ m2: size, u2: doubt })}
        />
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
            isPending={work.isPending}
            isDisabled={m1 === null || u1 === null || m2 === null || u2 === null}
            onPress={() =>
              m1 !== null && u1 !== null && m2 !== null && u2 !== null && work.mutate({ m1, u1, m2, u2 })
            }
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

interface Seen {
  size: number | null;
  /** Percent. */
  doubt: number | null;
}

interface OneFrameProps {
  tube: string;
  size: string;
  extension: number;
  seen: Seen;
  onTube: (extension: number) => void;
  onSeen: (seen: Seen) => void;
}

/** One of the two frames: its tube, and the size that a ruler gave in it with the doubt that the ruler had. */
function OneFrame({ tube, size, extension, seen, onTube, onSeen }: OneFrameProps) {
  const rulers = useRulers();
  return (
    <>
      <QuantityField label={tube} kind="length" value={extension} step={by(1, 5)} onChange={onTube} />
      <QuantityField
        label={size}
        kind="ratio"
        value={seen.size}
        step={byShare}
        onChange={(value) => onSeen({ ...seen, size: value > 0 ? value : null })}
        onEmpty={() => onSeen({ ...seen, size: null })}
        emptyHint="from a ruler"
      />
      <QuantityField
        label="Give or take, %"
        kind="plain"
        value={seen.doubt}
        step={byShare}
        onChange={(value) => onSeen({ ...seen, doubt: value > 0 ? value : null })}
        onEmpty={() => onSeen({ ...seen, doubt: null })}
        emptyHint="as the ruler said"
      />
      {rulers.length ? (
        <Wide>
          <Pick
            label={`${size}: by a ruler`}
            value={null}
            options={rulers}
            onChange={(id) => {
              const found = rulers.find((each) => each.id === id)?.found;
              if (!found) return;
              onSeen({ size: found.magnification, doubt: (100 * found.uncertainty) / found.magnification });
            }}
          />
        </Wide>
      ) : null}
    </>
  );
}

/** Sizes that rulers gave, each with its own doubt. */
function useRulers() {
  const trials =
    useQuery({ queryKey: ["trials"], queryFn: () => dataOf(api.GET("/api/trials")) }).data?.trials ?? [];
  return trials.flatMap((trial) => {
    const found = trial.result?.ruler;
    return found ? [{ id: trial.trial_id, label: trial.result?.sentence ?? "", found }] : [];
  });
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
      if (lens.kit_id === null) return;
      await dataOf(
        api.POST("/api/trials/by-hand", {
          body: {
            kit_id: lens.kit_id,
            ruler: null,
            two_tubes: {
              at,
              focal_length_mm: answer.focal_length_mm,
              uncertainty_mm: answer.focal_length_uncertainty_mm,
              pupil_magnification: answer.pupil_magnification,
              pupil_uncertainty: answer.pupil_uncertainty,
            },
          },
        }),
      );
      await Promise.all([
        queries.invalidateQueries({ queryKey: ["kit"] }),
        queries.invalidateQueries({ queryKey: ["trials"] }),
      ]);
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
      <Button isPending={take.isPending} isDisabled={take.isSuccess} onPress={() => take.mutate(answer)}>
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
