/**
 * How long a test waits for what should come, ms: so long that a machine which is busy with something else passes, and
 * only one where nothing moves any more does not. What is waited for is told by whoever waits.
 */
export const patienceMs = 300_000
export const patience = { timeout: patienceMs } as const
