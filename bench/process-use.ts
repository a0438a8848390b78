import { readFileSync } from 'node:fs';

/** What the kernel counts of a process: ticks of a hundredth of a second. */
const ticksPerS = 100;

function read(pid: number, file: string): string {
  try {
    return readFileSync(`/proc/${pid}/${file}`, 'utf8');
  } catch {
    return '';
  }
}

/** Memory that a process holds, MB; 0 where the system does not say. */
export function residentMb(pid: number): number {
  return Number(/VmRSS:\s+(\d+) kB/.exec(read(pid, 'status'))?.[1] ?? 0) / 1024;
}

/** Processor time that a process has used, s; 0 where the system does not say. */
export function processorS(pid: number): number {
  // After the name in brackets, which may hold anything: state is the first field, own and system time the 12th and 13th.
  const fields = read(pid, 'stat').split(') ').at(-1)?.split(' ') ?? [];
  return (Number(fields[11] ?? 0) + Number(fields[12] ?? 0)) / ticksPerS;
}
