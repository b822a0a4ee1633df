import { memo } from "react";
import styled from "styled-components";
import type { Plan, WayAnswer } from "../../api/types";
import { Button } from "../../controls/Button";
import { unbroken } from "../../units/format";

const Bar = styled.footer`
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 56px;
  padding: 6px 16px;
  border-top: 1px solid ${({ theme }) => theme.line};
  background: ${({ theme }) => theme.surface};
`;

const Sentence = styled.p`
  flex: 1;
  min-width: 0;
  font-size: 15px;
  line-height: 1.3;
  strong {
    font-weight: 680;
  }
  span {
    color: ${({ theme }) => theme.soft};
  }
`;

const Key = styled.kbd`
  padding: 2px 6px;
  border: 1px solid ${({ theme }) => theme.line};
  font-size: 11.5px;
  margin-right: 6px;
`;

const Keys = styled.span`
  font-size: 12.5px;
  color: ${({ theme }) => theme.soft};
  white-space: nowrap;
  @media (max-width: 1100px) {
    display: none;
  }
`;

interface FootProps extends Omit<NextProps, "way" | "hasOther"> {
  plan: Plan | null;
  /** The plan is of the shot as it was: a field of the draft is refused. */
  before: boolean;
  way: WayAnswer | null;
}

/** The verdict in a sentence, and the next thing to do. */
export const Foot = memo(function Foot({ plan, before, way, ...next }: FootProps) {
  return (
    <Bar>
      <Sentence aria-live="polite">
        {plan ? (
          <>
            {before ? <span>Before the marked field was typed: </span> : null}
            <strong>{unbroken(plan.verdict.headline)}</strong> <span>{unbroken(plan.verdict.detail)}</span>
          </>
        ) : (
          <span>Working it out…</span>
        )}
      </Sentence>
      {plan || next.comparing ? (
        <Next way={way?.frames ? way.id : null} hasOther={(plan?.ways.length ?? 0) > 1} {...next} />
      ) : null}
    </Bar>
  );
});

interface NextProps {
  /** The way looked at, where it can be done. */
  way: WayAnswer["id"] | null;
  hasOther: boolean;
  chosen: WayAnswer["id"] | null;
  pinned: WayAnswer["id"][];
  /** Ways of other shots beside them. */
  beside: number;
  comparing: boolean;
  onChoose: (id: WayAnswer["id"] | null) => void;
  onPin: (id: WayAnswer["id"], pinned: boolean) => void;
  onCompare: (comparing: boolean) => void;
}

/** What can be done with the way looked at: apart from the sentence, which changes with every figure. */
const Next = memo(function Next(props: NextProps) {
  const { way, hasOther, chosen, pinned, beside, comparing, onChoose, onPin, onCompare } = props;
  const decided = way !== null && chosen === way;
  return (
    <>
      {hasOther ? (
        <Keys>
          <Key>W</Key>next way
        </Keys>
      ) : null}
      {pinned.length || beside || comparing ? (
        <Button aria-pressed={comparing} onPress={() => onCompare(!comparing)}>
          {comparing ? "Back to the bench" : `Side by side (${pinned.length + beside})`}
        </Button>
      ) : null}
      {way && !comparing ? (
        <Button aria-pressed={pinned.includes(way)} onPress={() => onPin(way, !pinned.includes(way))}>
          {pinned.includes(way) ? "Unpin" : "Pin"}
        </Button>
      ) : null}
      {way && !comparing ? (
        <Button data-weight={decided ? undefined : "main"} onPress={() => onChoose(decided ? null : way)}>
          {decided ? "Undecide" : "Decide on this way"}
        </Button>
      ) : null}
    </>
  );
});
