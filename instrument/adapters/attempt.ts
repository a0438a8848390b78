/** One attempt of a way. */
export interface Opened {
  close(): void;
}

/** What an attempt says to whoever keeps it alive. */
export interface Attempt {
  opened(): void;
  text(text: string): void;
  ended(why?: string): void;
}
