/** A run's key out of its number, so that tests can tell the one by the other. */
export const keyOfRun = (id: number): string => `00000000-0000-4000-8000-${String(id).padStart(12, '0')}`;

/** The number that `keyOfRun` made a key of. */
export const runOfKey = (key: string): number => Number(key.slice(24, 36));
