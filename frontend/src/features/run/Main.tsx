import styled, { css } from "styled-components";
import { Button, LinkButton } from "../../controls/Button";

const large = css`
  width: 100%;
  min-height: 72px;
  margin: 12px 0 8px;
  font-size: 20px;
`;

/** The one thing to do now: reached without looking. */
export const Main = styled(Button)`
  ${large}
`;

/** The same, where it leads on. */
export const MainLink = styled(LinkButton)`
  ${large}
`;
