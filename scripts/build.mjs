// Builds core, server and web.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { precompress } from './precompress.mjs';

const run = (command, ...args) => execFileSync(command, args, { stdio: 'inherit' });

run('npx', 'tsc', '-b', '--pretty', 'false');
run('npm', 'exec', '-w', 'web', '--', 'vite', 'build', '--logLevel', 'warn');
precompress(fileURLToPath(new URL('../web/dist/', import.meta.url)));
