/** A reason why a command of this project cannot go on, as one line for the person who typed it. */
export class Failure extends Error {
  override name = 'Failure';
}
