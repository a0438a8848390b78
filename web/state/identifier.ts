import { identifier } from '../../contract/values/parts.ts';

/** The number that a part of the address names something stored by; undefined where it is none. */
export function identifierIn(part: string | undefined): number | undefined {
  const parsed = identifier.safeParse(part === undefined || !/^\d+$/.test(part) ? undefined : Number(part));
  return parsed.success ? parsed.data : undefined;
}
