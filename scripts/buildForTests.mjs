// Before the tests below the browser: what runs in processes of its own is started from what is built.
import { execFileSync } from 'node:child_process';

export function setup() {
  execFileSync('npx', ['tsc', '-b', '--pretty', 'false', 'server'], { stdio: 'inherit' });
}
