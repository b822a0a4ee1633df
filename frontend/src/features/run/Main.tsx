import { useRef } from "react";
import type { ButtonProps, LinkProps } from "react-aria-components";
import styled, { css } from "styled-components";
import { Button, LinkButton } from "../../controls/Button";
import { useHeir } from "../../controls/useHeir";

const large = css`
  width: 100%;
  min-height: 72px;
  margin: 12px 0 8px;
  font-size: 20px;
`;

const LargeButton = styled(Button)`
  ${large}
`;

const LargeLink = styled(LinkButton)`
  ${large}
`;

/** The one thing to do now: reached without looking. */
export function Main(props: ButtonProps) {
  const ref = useRef<HTMLButtonElement>(null);
  useHeir(ref);
  return <LargeButton ref={ref} data-weight="main" {...props} />;
}

/** The same, where it leads on. */
export function MainLink(props: LinkProps) {
  const ref = useRef<HTMLAnchorElement>(null);
  useHeir(ref);
  return <LargeLink ref={ref} data-weight="main" {...props} />;
}
