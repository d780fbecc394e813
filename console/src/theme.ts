import { theme } from 'ant-design-vue'

/**
 * The console's look, written down once: deep teal for action, warm sand for emphasis, cool greys for the rest.
 * Contrast of text is at least 4.5 to 1 on its ground (WCAG 2.2 AA).
 */
export interface Palette {
  ground: string
  surface: string
  sunken: string
  line: string
  text: string
  quiet: string
  action: string
  /** Under the pointer: further from what is behind it, so that it can still be read. */
  actionHover: string
  actionSoft: string
  sand: string
  sandSoft: string
  rail: string
  railText: string
  railActive: string
  bad: string
  good: string
}

const light: Palette = {
  ground: '#f4f6f7',
  surface: '#ffffff',
  sunken: '#eef2f3',
  line: '#dbe2e5',
  text: '#1b2a30',
  quiet: '#55666e',
  action: '#0f6b73',
  actionHover: '#0a545b',
  actionSoft: '#e0f0f0',
  sand: '#8a5f1c',
  sandSoft: '#faf1df',
  rail: '#12353b',
  railText: '#c4d6d8',
  railActive: '#f1e3c6',
  bad: '#b52d24',
  good: '#1c6b34',
}

const dark: Palette = {
  ground: '#10191d',
  surface: '#18242a',
  sunken: '#131e23',
  line: '#2b3a41',
  text: '#e3eaec',
  quiet: '#a0b0b7',
  action: '#4fb3b8',
  actionHover: '#74c9cd',
  actionSoft: '#17383c',
  sand: '#e5c58a',
  sandSoft: '#372d1b',
  rail: '#0b1518',
  railText: '#a9bdc1',
  railActive: '#f1e3c6',
  bad: '#ff8a80',
  good: '#7fd19a',
}

export function palette(isDark: boolean): Palette {
  return isDark ? dark : light
}

/** Ant Design's tokens for a palette. */
export function antTheme(isDark: boolean) {
  const colours = palette(isDark)
  return {
    algorithm: isDark ? [theme.darkAlgorithm, theme.compactAlgorithm] : [theme.compactAlgorithm],
    token: {
      colorPrimary: colours.action,
      colorInfo: colours.action,
      colorPrimaryHover: colours.actionHover,
      colorLink: colours.action,
      colorLinkHover: colours.actionHover,
      colorLinkActive: colours.actionHover,
      colorError: colours.bad,
      colorText: colours.text,
      colorTextSecondary: colours.quiet,
      colorTextDisabled: colours.quiet,
      colorTextPlaceholder: colours.quiet,
      colorBgLayout: colours.ground,
      colorBgContainer: colours.surface,
      colorBorder: colours.line,
      colorBorderSecondary: colours.line,
      borderRadius: 6,
      fontFamily: "'Inter Variable', system-ui, sans-serif",
      fontSize: 14,
      controlHeight: 32,
    },
  }
}

/** The palette as CSS variables, for what is not Ant Design's. */
export function cssVariables(isDark: boolean): Record<string, string> {
  const variables: Record<string, string> = {}
  for (const [name, value] of Object.entries(palette(isDark))) {
    variables['--' + name.replace(/[A-Z]/g, (letter) => '-' + letter.toLowerCase())] = value
  }
  return variables
}
