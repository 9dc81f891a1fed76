// Builds core, server, web and companion.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { firstDownload } from './firstDownload.mjs';
import { writeLineDrawings } from './lineDrawings.mjs';
import { offerCompanion } from './offerCompanion.mjs';
import { precompress } from './precompress.mjs';
import { writeReadyPictures } from './readyPictures.mjs';
import { shorten } from './shorten.mjs';

const run = (command, ...args) => execFileSync(command, args, { stdio: 'inherit' });

run('npx', 'tsc', '-b', '--pretty', 'false');
run('npm', 'exec', '-w', 'web', '--', 'vite', 'build', '--logLevel', 'warn');
run('npm', 'exec', '-w', 'web', '--', 'vite', 'build', '-c', 'vite.player.config.ts', '--logLevel', 'warn');
const dist = fileURLToPath(new URL('../web/dist/', import.meta.url));
run('node', 'companion/build.mjs');
offerCompanion(dist);
writeReadyPictures(dist);
await writeLineDrawings(dist);
await shorten(dist, firstDownload(dist));
precompress(dist);
