import { z } from 'zod';

/** What somebody may do: everything; all work, but not who else may; or look. */
export const roles = ['owner', 'operator', 'viewer'] as const;
export const role = z.enum(roles);
export type Role = z.infer<typeof role>;
