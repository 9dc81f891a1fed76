import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Debian's package of publishers' classes for TeX, which ships hundreds of documents. */
const PACKAGE = 'texlive-publishers-doc';

/** A folder with the files of the package, which are fetched once and not installed. */
export function corpusFolder() {
  const kept = join(tmpdir(), 'doodla-corpus');
  if (!existsSync(join(kept, 'usr'))) {
    mkdirSync(kept, { recursive: true });
    execFileSync('apt-get', ['download', PACKAGE], { cwd: kept, stdio: 'ignore' });
    const deb = readdirSync(kept).find((name) => name.endsWith('.deb'));
    execFileSync('dpkg-deb', ['-x', join(kept, deb), kept]);
  }
  return kept;
}
