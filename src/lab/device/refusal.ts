/** A stand-in says no. The kinds are those that RFC 8040 has tags for; each front words them its own way. */
export class Refusal extends Error {
  override readonly name = 'Refusal'
  constructor(
    readonly tag:
      | 'invalid-value'
      | 'data-missing'
      | 'data-exists'
      | 'malformed-message'
      | 'unknown-element'
      | 'in-use'
      | 'access-denied',
    message: string,
    /** What it is about, in words of the front that was asked. */
    readonly path?: string,
  ) {
    super(message)
  }
}
