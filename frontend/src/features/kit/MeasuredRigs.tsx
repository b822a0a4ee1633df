import styled from "styled-components";
import type { Kit } from "../../api/types";
import { Button } from "../../controls/Button";
import { figures } from "../../units/format";
import { rigWords } from "./rigWords";

const Group = styled.section`
  margin-top: 18px;
  h2 {
    font-size: 13px;
    font-weight: 650;
    padding-bottom: 3px;
    border-bottom: 1px solid ${({ theme }) => theme.strong};
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    min-height: 50px;
    padding: 4px 0;
    border-bottom: 1px solid ${({ theme }) => theme.line};
  }
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** Sizes that a ruler gave, kept for whole rigs; forgetting one gives the model back to shots that come to that rig. */
export function MeasuredRigs({ kit, onForget }: { kit: Kit; onForget: (index: number) => void }) {
  const measured = kit.measured_rigs;
  if (!measured.length) return null;
  return (
    <Group aria-label="Measured with a ruler">
      <h2>Measured with a ruler</h2>
      <ul>
        {measured.map((each, index) => {
          const words = rigWords(each.rig, kit);
          return (
            <li key={each.rig.join(" ")}>
              <div>
                {words}
                <small>
                  {figures(each.magnification, 4)}× where the model says {figures(each.modelled, 4)}×
                  {each.measured_on ? `, ${each.measured_on}` : ""}
                </small>
              </div>
              <Button aria-label={`Forget ${words}`} onPress={() => onForget(index)}>
                Forget
              </Button>
            </li>
          );
        })}
      </ul>
    </Group>
  );
}
