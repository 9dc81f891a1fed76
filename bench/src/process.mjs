import { readFileSync } from 'node:fs';

/** Hundredths of a second, as Linux counts (proc(5), clock ticks). */
const TICKS = 100;

/** Processor time that a process has used so far, seconds. */
export function cpuSeconds(pid) {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / TICKS;
}

/** Memory that a process has in use, megabytes. */
export function residentMegabytes(pid) {
  const line = /VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
  return Number(line[1]) / 1000;
}
