/** Whoever waits for the database waits no longer than this where it is remembered what it said, ms. */
const soonMs = 300;
/** Once it has been too slow, what is remembered is taken at once for this long, ms. */
const slowForMs = 5000;

/** Answers of the database, or of memory where the database takes too long or is away: somebody in gloves has pressed a key. */
export class Soon {
  private slowUntilMs = -Infinity;

  /**
   * @param ask of the database; what it answers late is not lost where the asking itself remembers it
   * @param remembered what it said before; undefined where nothing is remembered: then it is waited for
   */
  async or<T>(ask: () => Promise<T>, remembered: () => T | undefined): Promise<T> {
    const before = remembered();
    const asked = ask();
    if (before === undefined) return asked;
    const answered = asked.then(
      (answer) => {
        this.slowUntilMs = -Infinity;
        return answer;
      },
      () => before,
    );
    if (performance.now() < this.slowUntilMs) return before;
    let patience: NodeJS.Timeout | undefined;
    const late = new Promise<T>((resolve) => {
      patience = setTimeout(() => {
        this.slowUntilMs = performance.now() + slowForMs;
        resolve(before);
      }, soonMs);
    });
    try {
      return await Promise.race([answered, late]);
    } finally {
      clearTimeout(patience);
    }
  }
}
