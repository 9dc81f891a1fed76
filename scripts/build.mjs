// Builds core, server and web.
import { execFileSync } from 'node:child_process';

const run = (command, ...args) => execFileSync(command, args, { stdio: 'inherit' });

run('npx', 'tsc', '-b', '--pretty', 'false');
run('npm', 'exec', '-w', 'web', '--', 'vite', 'build', '--logLevel', 'warn');
