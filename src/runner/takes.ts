import { WireError } from '../wire/errors/wire-error'
import type { Lane } from '../wire/host/host'

/** Does a port of whoever is at the end of the lane take a connection? What gets lost on the way counts as a no. */
export async function takes(lane: Lane, port: number): Promise<boolean> {
  try {
    const socket = await lane.connect(port)
    socket.destroy()
    return true
  } catch (error) {
    if (error instanceof WireError) return false
    throw error
  }
}
