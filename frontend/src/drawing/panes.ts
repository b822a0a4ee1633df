import styled from "styled-components";

/** Pictures beside each other, each as wide as the next. */
export const Panes = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 14px;
  min-height: 0;
`;
