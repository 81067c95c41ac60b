'use client'
import { MantineProvider } from '@mantine/core'
import type { ReactNode } from 'react'
import { roles, theme } from './theme'

export function ThemeProvider({ children }: { children: ReactNode }) {
  return (
    <MantineProvider theme={theme} cssVariablesResolver={roles} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  )
}
