/** What a radio of a stand-in really does. */
import type { DeviceRadio } from './device-settings'

export interface RadioNow {
  readonly radio: DeviceRadio
  readonly condition: 'off' | 'listening' | 'on-air'
  /** Seconds. */
  readonly listensFor: number
  readonly networks: readonly { id: string; name: string; mode: string; meantOpen: boolean; bssid: string }[]
  /** The channel that it has left, since it heard radar there. */
  readonly left?: number | undefined
}
