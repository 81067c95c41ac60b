'use client'
import { UnstyledButton, useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { useMounted } from '@mantine/hooks'
import classes from './frame.module.css'

/** Light paper by day, dark for work at night. */
export function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme()
  const scheme = useComputedColorScheme('light')
  // The server does not know the scheme: the word waits until the browser is there.
  const mounted = useMounted()
  const other = mounted && scheme === 'dark' ? 'light' : 'dark'
  return (
    <UnstyledButton
      className={classes.tool ?? ''}
      onClick={() => setColorScheme(other)}
      aria-label={`Use the ${other} scheme`}
    >
      {other}
    </UnstyledButton>
  )
}
