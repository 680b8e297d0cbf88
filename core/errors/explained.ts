/**
 * Base of every error whose words a person may read. `code` is stable, in lower-case words joined by
 * hyphens: programs and tests tell errors apart by it and never by their words.
 */
export class ExplainedError extends Error {
  constructor(
    readonly code: string,
    /** What is the matter, as a sentence. */
    readonly why: string,
    /** What to do about it, as a sentence. */
    readonly remedy: string,
    options?: ErrorOptions,
  ) {
    super(`${why} ${remedy}`, options)
    this.name = new.target.name
  }
}
