'use client'
import { useEffect, useState } from 'react'

/** The time, ms since 1970, told anew four times a second for as long as something counts down. */
export function useNow(counting: 'counting' | 'still'): number {
  const [now, setNow] = useState(0)
  useEffect(() => {
    setNow(Date.now())
    if (counting === 'still') return
    const timer = setInterval(() => setNow(Date.now()), 250)
    return () => clearInterval(timer)
  }, [counting])
  return now
}
