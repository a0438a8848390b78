/** Cuts a stream of bytes into lines; a line over the limit is given up and reported. */
export class LineReader {
  private rest = '';
  private skipping = false;

  constructor(
    private readonly longest: number,
    private readonly onLine: (line: string) => void,
    private readonly onTooLong: () => void,
  ) {}

  push(text: string): void {
    let from = 0;
    for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', from)) {
      const line = this.rest + text.slice(from, end);
      this.rest = '';
      from = end + 1;
      if (this.skipping) this.skipping = false;
      else if (line.length > this.longest) this.onTooLong();
      else if (line.trim() !== '') this.onLine(line);
    }
    this.rest += text.slice(from);
    if (this.rest.length <= this.longest) return;
    this.rest = '';
    if (!this.skipping) this.onTooLong();
    this.skipping = true;
  }
}
