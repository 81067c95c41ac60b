/** Something that must never be: it ends the simulation. */
export class Violation extends Error {
  override readonly name = 'Violation'
  constructor(
    /** Which rule was broken. */
    readonly rule: string,
    readonly detail: string,
  ) {
    super(`${rule}: ${detail}`)
  }
}
