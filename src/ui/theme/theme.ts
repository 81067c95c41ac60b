/** Mantine, in our roles: its controls take colours and type from tokens.css. */
import { type CSSVariablesResolver, createTheme } from '@mantine/core'

export const theme = createTheme({
  fontFamily: 'var(--text)',
  fontFamilyMonospace: 'var(--mono)',
  fontSizes: { xs: '13px', sm: '14px', md: '14px', lg: '16px', xl: '20px' },
  colors: {
    plum: [
      '#f9f0f6',
      '#f3e6ef',
      '#e3c6da',
      '#dba3cb',
      '#c278ad',
      '#a3578d',
      '#854074',
      '#6b2d5c',
      '#551f48',
      '#401435',
    ],
  },
  primaryColor: 'plum',
  primaryShade: { light: 7, dark: 6 },
  autoContrast: true,
  defaultRadius: 7,
  cursorType: 'pointer',
})

export const roles: CSSVariablesResolver = () => {
  const both = {
    '--mantine-color-body': 'var(--paper)',
    '--mantine-color-text': 'var(--ink)',
    '--mantine-color-dimmed': 'var(--soft)',
    '--mantine-color-default': 'var(--sheet)',
    '--mantine-color-default-color': 'var(--ink)',
    '--mantine-color-default-border': 'var(--rule)',
    '--mantine-color-placeholder': 'var(--soft)',
    '--mantine-color-error': 'var(--flare)',
  }
  const dark = {
    '--mantine-color-dark-6': 'var(--paper)',
    '--mantine-color-dark-5': 'var(--tab)',
    '--mantine-color-dark-4': 'var(--rule)',
  }
  return { variables: {}, light: both, dark: { ...both, ...dark } }
}
