/** How access points stand with a controller, as it sees them. */
import type { RadioNow } from './radio-now'

/** How far an access point has come with its controller. */
export interface Join {
  readonly standing: 'absent' | 'discovered' | 'joining' | 'image' | 'configuring' | 'run' | 'turned-away'
  readonly reason?:
    | 'not-listed'
    | 'licence-full'
    | 'clock'
    | 'country'
    | 'certificate'
    | 'login'
    | 'image-failed'
    | undefined
  readonly unit?: JoinedUnit | undefined
}
/** What a controller sees of an access point. */
export interface JoinedUnit {
  readonly address: string | null
  air(): RadioNow[]
}
export interface Joins {
  /** As the controller with this MAC sees it. */
  of(mac: string, controller: string): Join
  /** MACs of all that have found the controller with this MAC. */
  at(controller: string): readonly string[]
}
