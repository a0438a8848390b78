/** The revision that a page had before a change; undefined where it names none. */
export function revisionOf(body: unknown): number | undefined {
  const revision = (body as { revision?: unknown } | undefined)?.revision;
  return Number.isInteger(revision) ? (revision as number) : undefined;
}
