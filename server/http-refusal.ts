/** A request that cannot be answered, with the status and sentence to say so. */
export class HttpRefusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** The field that it is about. */
    readonly field?: string,
  ) {
    super(message);
  }
}
