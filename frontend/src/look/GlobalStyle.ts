import { createGlobalStyle } from "styled-components";
import { fonts } from "./theme";

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    background: ${({ theme }) => theme.ground};
    color: ${({ theme }) => theme.ink};
    color-scheme: ${({ theme }) => (theme.name === "dark" ? "dark" : "light")};
    font: 400 14px/1.4 ${fonts.text};
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p, ul, ol, dl, dd { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  button, input, textarea { font: inherit; color: inherit; }
  a { color: inherit; }
  main:focus { outline: none; }
  :focus-visible, [data-focus-visible] { outline: 2px solid ${({ theme }) => theme.focusRing}; outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
`;
