import 'vuetify/styles'
import { createVuetify, type ThemeDefinition } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const quiet = {
  'medium-emphasis-opacity': 0.78,
  'high-emphasis-opacity': 0.95,
  'border-opacity': 0.5,
}

/* Paper is planed limewood, ink bog oak; milk paint for cuts, measured and cautions. */
const limewood: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#f4eddc',
    surface: '#fbf6e9',
    'on-background': '#2b2119',
    'on-surface': '#2b2119',
    primary: '#4a3524',
    'on-primary': '#fbf6e9',
    secondary: '#6d5a45',
    error: '#8f2d22',
    cut: '#8f2d22',
    measured: '#1f665b',
    caution: '#7d5406',
    line: '#b9a98a',
    wood: '#e6d6b4',
    leg: '#efe2c4',
  },
  variables: quiet,
}

const lampblack: ThemeDefinition = {
  dark: true,
  colors: {
    background: '#1b1612',
    surface: '#241d17',
    'on-background': '#efe5d0',
    'on-surface': '#efe5d0',
    primary: '#e3cfa4',
    'on-primary': '#241d17',
    secondary: '#bfa983',
    error: '#f0907f',
    cut: '#f0907f',
    measured: '#79c9b7',
    caution: '#e5b457',
    line: '#6b5a45',
    wood: '#3b2f23',
    leg: '#32281e',
  },
  variables: quiet,
}

const sunlit: ThemeDefinition = {
  dark: false,
  colors: {
    background: '#ffffff',
    surface: '#ffffff',
    'on-background': '#000000',
    'on-surface': '#000000',
    primary: '#000000',
    'on-primary': '#ffffff',
    secondary: '#000000',
    error: '#7a0c00',
    cut: '#7a0c00',
    measured: '#00443a',
    caution: '#533500',
    line: '#000000',
    wood: '#ffffff',
    leg: '#ffffff',
  },
  variables: { ...quiet, 'medium-emphasis-opacity': 1, 'border-opacity': 1 },
}

export const THEMES = ['limewood', 'lampblack', 'sunlit'] as const
export type ThemeName = (typeof THEMES)[number]
const KEPT = 'proud-rake.theme'

export function keptTheme(): ThemeName {
  const kept = localStorage.getItem(KEPT) as ThemeName | null
  if (kept && THEMES.includes(kept)) return kept
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'lampblack' : 'limewood'
}

export function keepTheme(name: ThemeName): void {
  localStorage.setItem(KEPT, name)
}

/** What the page was given for its one styles element: no other may be put in (content security). */
function nonce(): string | undefined {
  return document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content
}

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { cspNonce: nonce(), defaultTheme: keptTheme(), themes: { limewood, lampblack, sunlit } },
  defaults: {
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VBtn: { variant: 'outlined', rounded: 0, ripple: false },
    VCheckbox: { density: 'compact', color: 'measured', hideDetails: 'auto', ripple: false },
    VCheckboxBtn: { density: 'compact', color: 'measured', ripple: false },
    VRadio: { density: 'compact', color: 'measured', ripple: false },
    VRadioGroup: { hideDetails: true },
    VTable: { density: 'compact' },
  },
})
