import styled from "styled-components";
import { Button } from "../../controls/Button";
import { fonts } from "../../look/theme";
import { NAMES, readingOf } from "./hand";
import type { Playing } from "./useDrill";

const LARGE = 10;

const Row = styled.div`
  display: grid;
  grid-template-columns: 52px 52px minmax(0, 1fr) 52px 52px;
  align-items: center;
  gap: 6px;
  button {
    min-height: 48px;
    padding: 0;
  }
`;

const Reading = styled.output`
  text-align: center;
  font: 600 17px ${fonts.figures};
  small {
    display: block;
    font: 400 12px ${fonts.figures};
    color: ${({ theme }) => theme.soft};
  }
`;

/** The knobs of the lens, in its own clicks: by pointer and by touch; keys do the same. */
export function Knobs({ playing }: { playing: Playing }) {
  const { drill, now, turn, result } = playing;
  if (!drill || !now) return null;
  return (
    <>
      {drill.knobs.map(({ name }) => (
        <Row key={name} role="group" aria-label={NAMES[name]}>
          <Button
            isDisabled={result !== null}
            onPress={() => turn(name, -LARGE)}
            aria-label={`${NAMES[name]}, ten clicks back`}
          >
            −10
          </Button>
          <Button
            isDisabled={result !== null}
            onPress={() => turn(name, -1)}
            aria-label={`${NAMES[name]}, one click back`}
          >
            −
          </Button>
          <Reading aria-live="polite">
            {readingOf(drill, now, name)}
            <small>{NAMES[name]}</small>
          </Reading>
          <Button
            isDisabled={result !== null}
            onPress={() => turn(name, 1)}
            aria-label={`${NAMES[name]}, one click on`}
          >
            +
          </Button>
          <Button
            isDisabled={result !== null}
            onPress={() => turn(name, LARGE)}
            aria-label={`${NAMES[name]}, ten clicks on`}
          >
            +10
          </Button>
        </Row>
      ))}
    </>
  );
}
