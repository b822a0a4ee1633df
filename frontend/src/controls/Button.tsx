import { Button as AriaButton, Link as AriaLink } from "react-aria-components";
import styled, { css } from "styled-components";

const look = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 8px;
  min-height: 40px;
  padding: 0 14px;
  border: 1px solid ${({ theme }) => theme.strong};
  border-radius: 0;
  background: transparent;
  color: ${({ theme }) => theme.ink};
  font-weight: 550;
  text-decoration: none;
  cursor: pointer;
  white-space: nowrap;
  &[data-hovered] {
    background: ${({ theme }) => theme.raised};
  }
  &[data-disabled] {
    border-color: ${({ theme }) => theme.line};
    color: ${({ theme }) => theme.soft};
    cursor: default;
  }
  &[data-weight="main"] {
    background: ${({ theme }) => theme.strong};
    color: ${({ theme }) => theme.onStrong};
  }
  &[data-weight="main"][data-disabled] {
    background: ${({ theme }) => theme.line};
    color: ${({ theme }) => theme.soft};
  }
  /* While it is answered: not disabled, which would take the focus away; seen where it takes long. */
  &[data-pending],
  &[data-weight="main"][data-pending] {
    color: ${({ theme }) => theme.soft};
    cursor: default;
    transition:
      color 0s 200ms,
      background 0s 200ms;
  }
  &[data-weight="main"][data-pending] {
    background: ${({ theme }) => theme.line};
  }
  &[data-weight="quiet"] {
    border-color: transparent;
    padding: 0 8px;
  }
`;

/** Square-cornered; `data-weight` is main, quiet, or nothing for the ordinary one. */
export const Button = styled(AriaButton)`
  ${look}
`;

export const LinkButton = styled(AriaLink)`
  ${look}
`;
