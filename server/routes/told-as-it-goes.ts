import type { Request, Response } from 'express';
import type { WorkLine } from '../../contract/values/answers.ts';

/**
 * Long work, told as it goes to whoever accepts lines (application/x-ndjson):
 * what is being done, and as the last line the answer or the error. Others get
 * the answer alone, as ever.
 */
export class ToldAsItGoes {
  private readonly gone = new AbortController();
  /** Whether whoever asks is told line by line. */
  readonly inLines: boolean;

  constructor(
    request: Request,
    private readonly response: Response,
  ) {
    this.inLines = request.accepts(['json', 'application/x-ndjson']) === 'application/x-ndjson';
    response.once('close', () => {
      if (!response.writableEnded) this.gone.abort();
    });
    if (!this.inLines) return;
    // Whatever fails from here on is a line as well.
    response.locals.inLines = true;
    response.status(200).type('application/x-ndjson').flushHeaders();
  }

  /** Aborted when whoever asked waits no longer. */
  get signal(): AbortSignal {
    return this.gone.signal;
  }

  tell(line: WorkLine): void {
    if (this.inLines) this.response.write(`${JSON.stringify(line)}\n`);
  }

  end(status: number, answer: unknown): void {
    if (this.inLines) this.response.end(`${JSON.stringify({ answer })}\n`);
    else this.response.status(status).json(answer);
  }
}
