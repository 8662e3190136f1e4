import { createGlobalStyle } from 'styled-components';

/** Colours by name, day and night; components only ever use the names. Contrast of text is AA in both. */
const DAY = {
  paper: '#F3F0E8',
  sheet: '#FBFAF6',
  raised: '#FFFFFF',
  ink: '#20262B',
  soft: '#59626A',
  rule: '#D5CFC2',
  grid: '#EDE9DF',
  strong: '#8C8678',
  blue: '#1F3F66',
  'blue-2': '#5F7B9E',
  'blue-3': '#A9BACD',
  'on-blue': '#FFFFFF',
  tint: '#DCE5F0',
  tight: '#86305B',
  right: '#17706B',
  'right-tint': '#DDEBE7',
  loose: '#9A5F10',
  'loose-tint': '#F2E6D3',
  danger: '#A3341F',
  'danger-tint': '#F6E1DB',
  clay: '#CFC6B6',
  'clay-lit': '#D9CFBE',
  pin: '#B9B3A6',
};

const NIGHT: typeof DAY = {
  paper: '#171B1E',
  sheet: '#1E2327',
  raised: '#262C31',
  ink: '#E8E4DA',
  soft: '#A6ADB3',
  rule: '#3A4147',
  grid: '#262C30',
  strong: '#6C747B',
  blue: '#8FB4E0',
  'blue-2': '#6D8FB8',
  'blue-3': '#4A6483',
  'on-blue': '#10202F',
  tint: '#243447',
  tight: '#D98AB3',
  right: '#5DBDB4',
  'right-tint': '#1E3A38',
  loose: '#DDA44F',
  'loose-tint': '#3B3020',
  danger: '#EE8F7C',
  'danger-tint': '#43241E',
  clay: '#6E675C',
  'clay-lit': '#857D70',
  pin: '#4B5258',
};

export type ColourName = keyof typeof DAY;
export const colour = (name: ColourName) => `var(--${name})`;

const variables = (colours: typeof DAY) =>
  Object.entries(colours)
    .map(([name, value]) => `--${name}: ${value};`)
    .join('\n');

/** Headings and labels; text; every reading and model number. */
export const FONTS = {
  label: "'Barlow Semi Condensed', sans-serif",
  text: "'Barlow', sans-serif",
  number: "'Spline Sans Mono', monospace",
};

export const GlobalStyle = createGlobalStyle`
  :root { ${variables(DAY)} color-scheme: light; }
  :root[data-theme='night'] { ${variables(NIGHT)} color-scheme: dark; }
  @media (prefers-color-scheme: dark) {
    :root:not([data-theme='day']) { ${variables(NIGHT)} color-scheme: dark; }
  }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; }
  body { margin: 0; background: var(--paper); color: var(--ink); font: 15px/1.4 ${FONTS.text}; }
  h1, h2, h3 { font-family: ${FONTS.label}; font-weight: 600; margin: 0; line-height: 1.2; }
  h1 { font-size: 24px; } h2 { font-size: 18px; } h3 { font-size: 16px; }
  p { margin: 0; }
  a { color: var(--blue); }
  button { font: inherit; }
  .number { font-family: ${FONTS.number}; font-variant-numeric: tabular-nums; }
  .soft { color: var(--soft); }
  :focus-visible { outline: 2px solid var(--blue); outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
`;

export type Theme = 'day' | 'night' | 'system';
const KEY = 'sagoma.theme';

export function readTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === 'day' || kept === 'night' ? kept : 'system';
}

export function applyTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  if (theme === 'system') delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}

/** Whether it is dark now, for code that cannot read a CSS variable. */
export const isNight = () => getComputedStyle(document.documentElement).colorScheme.includes('dark');
