import { statSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import type { TestServer } from './helpers/server.js';
import { allStored } from './helpers/testDatabase.js';
import { ADA, Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
afterEach(() => server.remove());

describe('first start', () => {
  it('asks for the first teacher, once', async () => {
    server = await startServer();
    const client = new Client(server.url);
    expect((await client.send('GET', '/api/me')).body).toEqual({
      teacher: null,
      operator: null,
      needsSetup: true,
      demo: false,
      schoolSignIn: false,
    });
    expect((await client.send('POST', '/api/setup', ADA)).status).toBe(201);
    expect((await client.send('GET', '/api/me')).body).toMatchObject({
      teacher: { name: ADA.name },
      needsSetup: false,
    });
    const again = await new Client(server.url).send('POST', '/api/setup', {
      ...ADA,
      email: 'eve@school.example',
    });
    expect(again.status).toBe(409);
    expect(again.body.message).toContain('already has its first teacher');
  });

  it.each([
    [{ ...ADA, email: 'ada' }, 'e-mail address'],
    [{ ...ADA, password: 'short' }, 'at least 10'],
    [{ ...ADA, name: '  ' }, 'your name'],
  ])('says what is missing: %o', async (fields, hint) => {
    server = await startServer();
    const { status, body } = await new Client(server.url).send('POST', '/api/setup', fields);
    expect(status).toBe(400);
    expect(body.message).toContain(hint);
  });

  it('keeps passwords as Argon2id, and session tokens only as hashes', async () => {
    server = await startServer();
    const client = await signedIn(server);
    const stored = await allStored(server);
    expect(stored).toContain('$argon2id$');
    expect(stored).not.toContain(ADA.password);
    expect(stored).not.toContain(client.cookie.split('=')[1]);
    expect(statSync(join(server.data, 'token.key')).mode & 0o077).toBe(0);
  });
});

describe('signing in', () => {
  it('sets a cookie that scripts cannot read and other sites cannot send', async () => {
    server = await startServer();
    await signedIn(server);
    const client = new Client(server.url);
    const { status, headers } = await client.send('POST', '/api/sign-in', {
      email: 'ADA@school.example',
      password: ADA.password,
    });
    expect(status).toBe(204);
    expect(headers.getSetCookie()[0]).toMatch(/HttpOnly/);
    expect(headers.getSetCookie()[0]).toMatch(/SameSite=Strict/);
    expect((await client.send('GET', '/api/lessons')).status).toBe(200);
    await client.send('POST', '/api/sign-out');
    expect((await client.send('GET', '/api/lessons')).status).toBe(401);
  });

  it('says the same for a wrong password and an unknown address, and stops guessing', async () => {
    server = await startServer();
    await signedIn(server);
    const client = new Client(server.url);
    const wrong = await client.send('POST', '/api/sign-in', { email: ADA.email, password: 'wrong-password' });
    const unknown = await client.send('POST', '/api/sign-in', {
      email: 'eve@school.example',
      password: 'wrong-password',
    });
    expect(wrong).toMatchObject({ status: 401, body: unknown.body });
    for (let i = 0; i < 9; i++)
      await client.send('POST', '/api/sign-in', { email: ADA.email, password: 'wrong-password' });
    const stopped = await client.send('POST', '/api/sign-in', { email: ADA.email, password: ADA.password });
    expect(stopped.status).toBe(429);
    expect(stopped.body.message).toMatch(/wait \d+ minutes/);
  });

  it('has the one-click door in demo mode only', async () => {
    server = await startServer();
    await signedIn(server);
    expect((await new Client(server.url).send('POST', '/api/demo-sign-in')).status).toBe(404);
    await server.remove();
    server = await startServer({ DOODLA_DEMO: '1' });
    await signedIn(server);
    const visitor = new Client(server.url);
    expect((await visitor.send('POST', '/api/demo-sign-in')).status).toBe(204);
    expect((await visitor.send('GET', '/api/lessons')).status).toBe(200);
  });

  it('sends the security headers of a careful site', async () => {
    server = await startServer();
    const { headers } = await new Client(server.url).send('GET', '/api/me');
    expect(headers.get('content-security-policy')).toContain("script-src 'self'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });
});
