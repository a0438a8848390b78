import { Router, type RequestHandler } from 'express';
import { endpoints } from '../../contract/requests/api.ts';
import type { Endpoint } from '../../contract/values/endpoint.ts';
import type { RequestsAtWork } from '../requests-at-work.ts';

/** A request as the contract names it: `get /jobs/:id`. */
const nameOf = ({ method, path }: Pick<Endpoint, 'method' | 'path'>) => `${method} ${path}`;
const known = new Map(endpoints.map((endpoint) => [nameOf(endpoint), endpoint]));

/**
 * Routes of the API. Only requests that the contract lists can be answered,
 * and all of them must be: what is described and what is served cannot differ.
 */
export class ContractRoutes {
  readonly router = Router();

  /** @param guard lets a request through to whoever may ask it */
  constructor(
    private readonly guard: (endpoint: Endpoint) => RequestHandler,
    private readonly atWork: RequestsAtWork,
  ) {}

  private readonly answered = new Set<string>();

  get(path: string, ...handlers: RequestHandler[]): void {
    this.answer('get', path, handlers);
  }

  post(path: string, ...handlers: RequestHandler[]): void {
    this.answer('post', path, handlers);
  }

  put(path: string, ...handlers: RequestHandler[]): void {
    this.answer('put', path, handlers);
  }

  patch(path: string, ...handlers: RequestHandler[]): void {
    this.answer('patch', path, handlers);
  }

  delete(path: string, ...handlers: RequestHandler[]): void {
    this.answer('delete', path, handlers);
  }

  /** @throws where a request of the contract has no answer */
  mustBeWhole(): void {
    const missing = [...known.keys()].filter((name) => !this.answered.has(name));
    if (missing.length > 0)
      throw new Error(`contract/requests/api.ts lists requests that nothing answers: ${missing.join(', ')}`);
  }

  /** @throws where the contract does not list it, or it is answered already */
  private answer(method: Endpoint['method'], path: string, handlers: RequestHandler[]): void {
    const name = nameOf({ method, path });
    const endpoint = known.get(name);
    if (!endpoint) throw new Error(`contract/requests/api.ts does not list ${name}`);
    if (this.answered.has(name)) throw new Error(`${name} is answered twice`);
    this.answered.add(name);
    this.router[method](path, this.guard(endpoint), ...handlers.map((handler) => this.atWork.known(handler)));
  }
}
