// A PostgreSQL server of their own for tests and benches, where it is installed; its files are gone with it.
import { execFileSync } from 'node:child_process';
import { chmodSync, chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const INSTALLED = '/usr/lib/postgresql';
export const PORT = 46_432;
const OPTIONS = ['-c listen_addresses=127.0.0.1', '-c max_connections=400'];
/** For tests: nothing there has to outlive the machine. */
const HASTY = ['-c fsync=off', '-c full_page_writes=off'];

/** The folder of PostgreSQL's programs, of the newest version that is installed; undefined where there is none. */
export const PROGRAMS = programsOf();

function programsOf() {
  if (!existsSync(INSTALLED)) return undefined;
  const versions = readdirSync(INSTALLED).sort((a, b) => Number(b) - Number(a));
  return versions
    .map((version) => join(INSTALLED, version, 'bin'))
    .find((bin) => existsSync(join(bin, 'initdb')));
}

/** Starts it for Vitest, which calls what is returned at the end. */
export default function setup() {
  return startPostgres(PORT, HASTY);
}

/** Starts it on a port of the loopback; whoever connects is `doodla`. Returns what stops it. */
export function startPostgres(port, options = []) {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-postgres-'));
  const data = join(folder, 'data');
  const isRoot = process.getuid() === 0;
  // It does not run as root.
  const run = (program, ...args) => {
    const call = [join(PROGRAMS, program), ...args];
    const [command, ...rest] = isRoot ? ['runuser', '-u', 'postgres', '--', ...call] : call;
    execFileSync(command, rest, { stdio: 'ignore', cwd: folder });
  };
  if (isRoot) {
    const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
    chownSync(folder, id('-u'), id('-g'));
    chmodSync(folder, 0o755);
  }
  run('initdb', '-D', data, '-A', 'trust', '-U', 'doodla', '--no-sync', '-E', 'UTF8', '--locale=C.UTF-8');
  run(
    'pg_ctl',
    '-D',
    data,
    '-o',
    [...OPTIONS, ...options, `-p ${port}`, `-k ${folder}`].join(' '),
    '-l',
    join(folder, 'log'),
    '-w',
    'start',
  );
  const stop = () => {
    run('pg_ctl', '-D', data, '-m', 'immediate', 'stop');
    rmSync(folder, { recursive: true, force: true });
  };
  /** Ends every connection, as an update of PostgreSQL does. */
  const restart = () => run('pg_ctl', '-D', data, '-m', 'fast', '-w', 'restart');
  return Object.assign(stop, { restart });
}
