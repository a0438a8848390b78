import type { z } from 'zod';
import { Failure } from '../failure.ts';

/** Asks the server over HTTP, as a page does, and notes when in the scenario each act was done. */
export class DemoAsk {
  /** The scenario's present moment: acts are done then. */
  now = new Date(0);
  /** The moment of each act so far, by the number that the server gave it. */
  readonly acts = new Map<number, Date>();

  /** @param signal once it is aborted nothing more is asked */
  constructor(
    private readonly port: number,
    private readonly signal: AbortSignal,
  ) {}

  /** @throws Failure when the server refuses, or answers in another form */
  async json<T extends z.ZodType>(schema: T, method: string, path: string, body?: unknown): Promise<z.output<T>> {
    const json = { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
    const response = await this.answered(path, { method, ...(body === undefined ? {} : json) });
    return schema.parse(await response.json());
  }

  /** Sends a file. */
  async file(path: string, { name, content }: { name: string; content: string }): Promise<void> {
    const form = new FormData();
    form.append('file', new Blob([content]), name);
    await this.answered(path, { method: 'POST', body: form });
  }

  private async answered(path: string, init: RequestInit & { method: string }): Promise<Response> {
    const response = await fetch(`http://127.0.0.1:${this.port}${path}`, { ...init, signal: this.signal });
    if (!response.ok)
      throw new Failure(`The demo data could not be made: ${init.method} ${path} answered ${await response.text()}`);
    const act = response.headers.get('suvok-act');
    if (act) this.acts.set(Number(act), this.now);
    return response;
  }
}
