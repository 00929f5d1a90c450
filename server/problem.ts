/** The one error that may be shown: a status, a code for programs, a sentence for people and details. */
export class Problem extends Error {
  constructor(
    readonly status: number, readonly code: string, message: string, readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}
