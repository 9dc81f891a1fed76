// A Redis server of their own for tests and benches, where it is installed; it keeps nothing.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { connect } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

const PROGRAM = '/usr/bin/redis-server';
export const PORT = 46_379;
export const hasRedis = existsSync(PROGRAM);

/** Starts it for Vitest, which calls what is returned at the end. */
export default function setup() {
  return startRedis(PORT);
}

/** Starts it on a port of the loopback. Resolves once it answers, with what stops it. */
export async function startRedis(port) {
  const quiet = ['--save', '', '--appendonly', 'no', '--loglevel', 'warning'];
  const args = ['--port', `${port}`, '--bind', '127.0.0.1', ...quiet];
  const child = spawn(PROGRAM, args, { stdio: 'ignore', cwd: '/' });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  while (!(await isThere(port))) await sleep(20);
  return async () => {
    child.kill('SIGKILL');
    await ended;
  };
}

function isThere(port) {
  return new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('connect', () => socket.end(() => resolve(true)));
    socket.once('error', () => resolve(false));
  });
}
