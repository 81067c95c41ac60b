/** An echo (RFC 792), by Debian's ping: as any user may send it. */
import { spawn } from 'node:child_process'

/** @param source  address of the laptop's own to send from, which decides the lane; any where it is left out */
export function echoes(address: string, source?: string): Promise<boolean> {
  const from = source === undefined ? [] : ['-I', source]
  return new Promise((resolve) => {
    const child = spawn('ping', ['-n', '-q', '-c', '2', '-i', '0.2', '-w', '2', ...from, address], { stdio: 'ignore' })
    child.once('error', () => resolve(false))
    child.once('close', (status) => resolve(status === 0))
  })
}
