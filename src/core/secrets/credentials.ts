/** What a person, or a muster, signs in to a unit with. */
export interface Credentials {
  readonly user: string
  readonly password: string
  /** Private key for SSH (RFC 4252, 7), in place of the password. */
  readonly privateKey?: string
}
