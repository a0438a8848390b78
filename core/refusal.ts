/**
 * Thrown when input cannot be used. The message is a whole sentence for the
 * person at the screen: what is wrong, where, and what to do about it.
 */
export class Refusal extends Error {
  override name = 'Refusal';
}
