import { createGlobalStyle } from 'styled-components';
import { day, desk, dusk, font, forced, unitColours } from './tokens';

const colours = (of: Readonly<Record<string, string>>, units: readonly string[]): string =>
  [
    ...Object.entries(of).map(([name, colour]) => `--${name}: ${colour};`),
    ...units.map((colour, i) => `--unit-${i}: ${colour};`),
  ].join(' ');

const DAY = `color-scheme: light; ${colours(day, unitColours.day)}`;
const FORCED = colours(
  forced,
  unitColours.day.map(() => 'CanvasText'),
);
const DUSK = `color-scheme: dark; ${colours(dusk, unitColours.dusk)}`;

export const GlobalStyle = createGlobalStyle`
  :root { ${DAY} }
  /* Paper is printed by day. */
  @media screen { :root[data-light='dark'] { ${DUSK} } }
  @media screen and (prefers-color-scheme: dark) { :root[data-light='system'] { ${DUSK} } }
  @media (forced-colors: active) {
    :root, :root[data-light] { ${FORCED} }
    /* What is chosen is told by an edge: grounds are all the same. */
    [aria-current='page'], [aria-selected='true'], [data-selected] { outline: 3px solid Highlight; outline-offset: -3px; }
  }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; }
  body {
    margin: 0;
    background: ${desk.paper};
    color: ${desk.ink};
    font: 400 14px/1.4 ${font.text};
    font-variant-numeric: tabular-nums;
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3 { font-family: ${font.display}; font-weight: 700; line-height: 1.15; margin: 0; }
  p { margin: 0; }
  a { color: ${desk.tide}; text-underline-offset: 2px; }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus { outline: none; }
  :focus-visible, [data-focus-visible]:not(:has(button:focus-visible)) { outline: 3px solid ${desk.lamp}; outline-offset: 1px; }
  ::selection { background: ${desk.lampWash}; }
  kbd {
    font: 600 11px/1 ${font.bytes};
    border: 1px solid currentColor;
    border-radius: 3px;
    padding: 2px 4px;
  }
  .paper-only { display: none; }
  @page { margin: 12mm; }
  @page wide { size: landscape; }
  @media print {
    html, body, #root { height: auto; background: #fff; color: #000; }
    header, footer, nav, button, .screen-only { display: none !important; }
    .paper-only { display: block; }
    main, main * { overflow: visible !important; max-height: none !important; }
    tr, li { break-inside: avoid; }
    table { border-color: #000 !important; background: #fff !important; }
  }
`;
