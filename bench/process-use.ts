import { readFileSync } from 'node:fs';

/** What the kernel counts of a process: ticks of a hundredth of a second. */
const ticksPerS = 100;

function read(file: string): string {
  try {
    return readFileSync(`/proc/${file}`, 'utf8');
  } catch {
    return '';
  }
}

/** Memory that a process holds, MB; 0 where the system does not say. */
export function residentMb(pid: number): number {
  return Number(/VmRSS:\s+(\d+) kB/.exec(read(`${pid}/status`))?.[1] ?? 0) / 1024;
}

/** Processor time that a process has used, s; 0 where the system does not say. */
export function processorS(pid: number): number {
  // After the name in brackets, which may hold anything: state is the first field, own and system time the 12th and 13th.
  const fields = read(`${pid}/stat`).split(') ').at(-1)?.split(' ') ?? [];
  return (Number(fields[11] ?? 0) + Number(fields[12] ?? 0)) / ticksPerS;
}

/** Ticks of all processors since the machine began. */
export interface ProcessorTimes {
  all: number;
  /** Wanted by this machine and given to others beside it. */
  byOthers: number;
}

/** How the processors' time was spent so far; undefined where the system does not say. */
export function processorTimes(): ProcessorTimes | undefined {
  const ticks = /^cpu +([\d ]+)$/m.exec(read('stat'))?.[1]?.split(' ').map(Number);
  if (!ticks) return undefined;
  // user nice system idle iowait irq softirq steal; what guests had is counted in the first two.
  return { all: ticks.slice(0, 8).reduce((sum, one) => sum + one, 0), byOthers: ticks[7] ?? 0 };
}

/** Share of processor time since then that others had; undefined where nothing can be said. */
export function takenSince(before: ProcessorTimes | undefined): number | undefined {
  const now = processorTimes();
  if (!before || !now || now.all === before.all) return undefined;
  return (now.byOthers - before.byOthers) / (now.all - before.all);
}
