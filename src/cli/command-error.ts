/** A command that cannot be carried out: the sentence for people, the exit code for programs. */
export class CommandError extends Error {
  override readonly name = 'CommandError'
  constructor(
    readonly exitCode: number,
    message: string,
  ) {
    super(message)
  }
}
