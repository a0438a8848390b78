/** Ms since the machine began, alike in all its processes; nobody sets it. */
export const machineMs = (): number => Number(process.hrtime.bigint() / 1_000_000n);
