import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect } from 'node:tls';
import { createServer } from 'node:https';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeRoot, makeServerCertificate } from '../src/tls/schoolCertificate.js';

const folder = mkdtempSync(join(tmpdir(), 'doodla-tls-'));
const hosts = ['doodla.school.example', '10.0.0.7', 'localhost', '127.0.0.1'];
const root = makeRoot('Quillmere Community School');
const own = makeServerCertificate(root, hosts);
const path = (name: string) => join(folder, name);

beforeAll(() => {
  writeFileSync(path('root.crt'), root.certificate);
  writeFileSync(path('server.crt'), own.certificate);
});
afterAll(() => rmSync(folder, { recursive: true }));

// OpenSSL is the judge of the certificates (RFC 5280), Node's TLS of their use.
describe('a certificate of the school’s own', () => {
  const openssl = (...args: string[]) => execFileSync('openssl', args, { encoding: 'utf8' });

  it.each(hosts)('is good for %s under the root, by openssl', (host) => {
    const kind = /^\d/.test(host) ? '-verify_ip' : '-verify_hostname';
    const verdict = openssl(
      'verify',
      '-x509_strict',
      '-purpose',
      'sslserver',
      kind,
      host,
      '-CAfile',
      path('root.crt'),
      path('server.crt'),
    );
    expect(verdict).toContain('OK');
  });

  it('is good for nobody else, and not without the root', () => {
    const verify = (...args: string[]) =>
      spawnSync('openssl', ['verify', ...args, path('server.crt')]).status;
    expect(verify('-verify_hostname', 'other.example', '-CAfile', path('root.crt'))).not.toBe(0);
    expect(verify()).not.toBe(0);
  });

  it('cannot sign others', () => {
    const text = openssl('x509', '-in', path('server.crt'), '-noout', '-text');
    expect(text).toContain('CA:FALSE');
    expect(openssl('x509', '-in', path('root.crt'), '-noout', '-text')).toContain('CA:TRUE, pathlen:0');
  });

  it('is taken by a client that trusts the root, and by no other', async () => {
    const server = createServer({ cert: own.certificate, key: own.key }).listen(0, '127.0.0.1');
    await once(server, 'listening');
    const { port } = server.address() as AddressInfo;
    const reach = async (ca?: string) => {
      const socket = connect({ host: '127.0.0.1', port, servername: 'localhost', ...(ca && { ca }) });
      const error = await once(socket, 'secureConnect').then(
        () => undefined,
        (reason: Error) => reason,
      );
      socket.destroy();
      return error;
    };
    expect(await reach(root.certificate)).toBeUndefined();
    expect(await reach()).toBeInstanceOf(Error);
    server.close();
  });
});

describe('the command', () => {
  const main = fileURLToPath(new URL('../dist/tls/certificate.main.js', import.meta.url));
  const run = (...args: string[]) =>
    spawnSync(process.execPath, [main, ...args], {
      encoding: 'utf8',
      env: { PATH: process.env.PATH, DOODLA_DATA: path('data') },
    });

  it('keeps its root, says how devices come to trust it, and refuses nonsense in a sentence', () => {
    const first = run('doodla.school.example');
    expect(first.status).toBe(0);
    expect(first.stdout).toContain('https://doodla.school.example:4600/root.crt');
    const rootOf = () =>
      execFileSync('openssl', ['x509', '-in', path('data/tls/root.crt'), '-noout', '-serial']);
    const before = rootOf();
    expect(run('10.1.2.3').status).toBe(0);
    expect(rootOf()).toEqual(before);
    const refused = run('no such name!');
    expect(refused.status).toBe(1);
    expect(refused.stderr).toMatch(/^“no such name!” is no name or address\./);
  });
});
