/** Seconds in words: `48 s`, `3 min 10 s`. */
export function duration(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds))
  if (whole < 60) return `${whole} s`
  const rest = whole % 60
  return rest === 0 ? `${Math.floor(whole / 60)} min` : `${Math.floor(whole / 60)} min ${rest} s`
}

/** Seconds until a time, as the wire counts them. */
export function secondsUntil(until: number, now: number, pace: number): number {
  return now === 0 ? 0 : Math.max(0, Math.ceil(((until - now) / 1000) * pace))
}

/** `60 s`, `10 minutes`. */
export function listenWords(seconds: number): string {
  return seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} minutes`
}
