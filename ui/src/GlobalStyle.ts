import { createGlobalStyle } from 'styled-components'

import { color, darkVariables, font, lightVariables, narrow, targetVariables, thumb, thumbVariables } from './theme'

export const GlobalStyle = createGlobalStyle`
  :root { ${lightVariables} ${targetVariables} }
  ${thumb} { :root { ${thumbVariables} } }
  @media (prefers-color-scheme: dark) { :root { ${darkVariables} } }
  @media print { :root { ${lightVariables} } .no-print { display: none !important; } }

  *, *::before, *::after { box-sizing: border-box; }
  html { color-scheme: light dark; }
  /* What takes the focus does not lie under the line at the bottom. */
  ${narrow} { html { scroll-padding-bottom: 64px; } }
  body {
    margin: 0;
    background: ${color.paper};
    color: ${color.ink};
    font: 16px/1.5 ${font.body};
  }
  h1, h2, h3, p, ul, ol, dl, dd { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  h1, h2, h3 { font-size: inherit; font-weight: 600; line-height: 1.25; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: ${color.slate}; }
  kbd { font: 0.8em ${font.mono}; border: 1px solid ${color.edge}; border-radius: 2px; padding: 0 4px; }
  :focus-visible { outline: 2px solid ${color.slate}; outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
  .only-read { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%);
    white-space: nowrap; }
`
