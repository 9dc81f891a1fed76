import linter from 'addons-linter';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import { LOCALES } from '../locales.mjs';
import { manifestOf } from '../manifest.mjs';

const DIST = fileURLToPath(new URL('../dist/', import.meta.url));

interface Manifest {
  permissions: string[];
  host_permissions?: string[];
  content_scripts?: unknown;
  content_security_policy: { extension_pages: string };
}

beforeAll(() => {
  if (!existsSync(join(DIST, 'firefox/manifest.json')))
    execFileSync('node', [fileURLToPath(new URL('../build.mjs', import.meta.url))]);
});

/** Words and libraries of the extension's own pages take the linter minutes. */
const isOwn = (file: string) => !/^(assets|words)/.test(file);

/** What the linter of Firefox's add-ons (the one of `web-ext lint`) says of a folder. */
async function linted(folder: string) {
  const instance = linter.createInstance({
    config: {
      _: [folder],
      logLevel: 'fatal',
      stack: false,
      pretty: false,
      warningsAsErrors: false,
      metadata: false,
      output: 'none',
      boring: true,
      selfHosted: true,
      shouldScanFile: isOwn,
    },
    runAsBinary: false,
  });
  return instance.run();
}

describe('the builds of the companion', () => {
  it('for Firefox passes the linter of its add-ons', async () => {
    const { errors, warnings } = await linted(join(DIST, 'firefox'));
    expect(errors).toEqual([]);
    // Of the libraries: React sets markup for those who ask it to, which nobody does here.
    const known = new Set(['UNSAFE_VAR_ASSIGNMENT', 'DANGEROUS_EVAL']);
    expect(warnings.filter(({ code }) => !known.has(code))).toEqual([]);
  });

  it('would not pass it with a manifest that is wrong', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'companion-bad-'));
    writeFileSync(
      join(folder, 'manifest.json'),
      JSON.stringify({
        ...manifestOf('firefox', '1.0'),
        background: { scripts: ['gone.js'] },
        default_locale: undefined,
        permissions: 'all',
      }),
    );
    expect((await linted(folder)).errors.length).toBeGreaterThan(0);
    rmSync(folder, { recursive: true });
  });

  it.each(['chromium', 'firefox'] as const)('for %s asks for no more rights than work', (browser) => {
    const manifest = JSON.parse(readFileSync(join(DIST, browser, 'manifest.json'), 'utf8')) as Manifest;
    expect(manifest.permissions).toEqual(['activeTab', 'scripting', 'storage']);
    expect(manifest).not.toHaveProperty('host_permissions');
    // No page is touched before its button is pressed.
    expect(manifest).not.toHaveProperty('content_scripts');
    expect(manifest.content_security_policy.extension_pages).not.toMatch(/unsafe|http/);
  });

  it('say the same in each language', () => {
    expect(Object.keys(LOCALES.de)).toEqual(Object.keys(LOCALES.en));
  });
});
