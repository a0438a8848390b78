import type { z } from 'zod';
import type { Role } from './role.ts';

/** One request that the server answers: the source of /api/openapi.json and of the readable page at /api. */
export interface Endpoint {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Express form; `:id` is a number. */
  path: string;
  /** What it does, in a line. */
  does: string;
  /** Who may ask, where there are accounts; left out: whoever may look for what only reads, an operator for the rest. */
  needs?: 'nobody' | Role;
  query?: readonly string[];
  body?: z.ZodType;
  /** Sent as multipart/form-data: the file, and these fields. */
  form?: readonly string[];
  answer?: z.ZodType;
  /** What comes back where it is no JSON. */
  binary?: string;
}
