// Tokens of the look: paper, ink and a wading bird's colours. Every text colour meets WCAG AA
// (4.5:1) on each of the grounds it is used on, in both themes.

const light = {
  ink: '#1d2b33',
  faint: '#566069',
  paper: '#f7f5f0',
  sheet: '#fffdf9',
  line: '#d8d3c7',
  edge: '#8b8577',
  slate: '#2f5d73',
  onSlate: '#ffffff',
  slateGround: '#e4ecef',
  reed: '#4c6b3c',
  amber: '#8a5a00',
  amberGround: '#fbeed3',
  rust: '#9c2f1b',
  rustGround: '#f9e3dc',
}

const dark: typeof light = {
  ink: '#e8e4da',
  faint: '#a9b1b6',
  paper: '#14191c',
  sheet: '#1b2226',
  line: '#39434a',
  edge: '#77828a',
  slate: '#93c1d6',
  onSlate: '#10191d',
  slateGround: '#22333c',
  reed: '#a5c78d',
  amber: '#f0c478',
  amberGround: '#37290f',
  rust: '#f2a593',
  rustGround: '#43201a',
}

type Token = keyof typeof light

const declare = (tokens: typeof light) =>
  Object.entries(tokens)
    .map(([name, value]) => `--${name}: ${value};`)
    .join(' ')

export const lightVariables = declare(light)
export const darkVariables = declare(dark)

/** Colours as CSS variables, so that one style serves both themes. */
export const color = Object.fromEntries(
  Object.keys(light).map((name) => [name, `var(--${name})`]),
) as Record<Token, string>

/** Steps of the 8 px grid. */
export const space = (steps: number) => `${String(steps * 8)}px`

export const font = {
  body: "'Atkinson Hyperlegible Next', sans-serif",
  mono: "'JetBrains Mono', monospace",
}

export const radius = '2px'

/** Below this width the reckoning folds under the sheet. */
export const narrow = '@media (max-width: 900px)'

/**
 * Least heights of what is pressed: a main control, and a small one in a line of text. Under a thumb both are large.
 */
export const target = { main: 'var(--target-main)', small: 'var(--target-small)' }
export const targetVariables = '--target-main: 40px; --target-small: 32px;'
export const thumbVariables = '--target-main: 44px; --target-small: 44px;'
export const thumb = '@media (max-width: 900px), (pointer: coarse)'
