/** The time of day of this machine, to the second. @param ms since 1970 */
export const clockTime = (ms: number): string => new Date(ms).toTimeString().slice(0, 8);
