import { memo } from "react";
import styled from "styled-components";
import type { Plan, WayAnswer } from "../../api/types";
import { Button } from "../../controls/Button";

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

interface FootProps {
  plan: Plan | null;
  /** The plan is of the shot as it was: a field of the draft is refused. */
  before: boolean;
  way: WayAnswer | null;
  chosen: WayAnswer["id"] | null;
  pinned: WayAnswer["id"][];
  /** Ways of other shots beside them. */
  beside: number;
  comparing: boolean;
  onChoose: (id: WayAnswer["id"] | null) => void;
  onPin: (id: WayAnswer["id"], pinned: boolean) => void;
  onCompare: (comparing: boolean) => void;
}

/** The verdict in a sentence, and the next thing to do. */
export const Foot = memo(function Foot(props: FootProps) {
  const { plan, before, way, chosen, pinned, beside, comparing, onChoose, onPin, onCompare } = props;
  const decided = way !== null && chosen === way.id;
  return (
    <Bar>
      <Sentence aria-live="polite">
        {plan ? (
          <>
            {before ? <span>Before the marked field was typed: </span> : null}
            <strong>{plan.verdict.headline}</strong> <span>{plan.verdict.detail}</span>
          </>
        ) : (
          <span>Working it out…</span>
        )}
      </Sentence>
      <Keys>
        <Key>W</Key>next way
      </Keys>
      {pinned.length || beside || comparing ? (
        <Button aria-pressed={comparing} onPress={() => onCompare(!comparing)}>
          {comparing ? "Back to the bench" : `Side by side (${pinned.length + beside})`}
        </Button>
      ) : null}
      {way && way.frames > 0 && !comparing ? (
        <Button
          aria-pressed={pinned.includes(way.id)}
          onPress={() => onPin(way.id, !pinned.includes(way.id))}
        >
          {pinned.includes(way.id) ? "Unpin" : "Pin"}
        </Button>
      ) : null}
      {way && way.frames > 0 && !comparing ? (
        <Button data-weight={decided ? undefined : "main"} onPress={() => onChoose(decided ? null : way.id)}>
          {decided ? "Undecide" : "Decide on this way"}
        </Button>
      ) : null}
    </Bar>
  );
});
