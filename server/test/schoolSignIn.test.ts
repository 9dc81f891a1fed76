import 'reflect-metadata';
import type { InstallationFigures, Me, SchoolDoor, SchoolTeacher } from '@doodla/core';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { SchoolSignInService } from '../src/school/schoolSignIn.service.js';
import { anotherSchool, operatorOf } from './helpers/schools.js';
import { ADA, Client, signedIn, startServer } from './helpers/server.js';
import type { TestServer } from './helpers/server.js';
import type { Claims } from './helpers/standInProvider.js';
import { StandInProvider } from './helpers/standInProvider.js';

let provider: StandInProvider;
let server: TestServer;
let admin: Client;

beforeAll(async () => {
  provider = await StandInProvider.start();
  server = await startServer(settings());
  admin = await signedIn(server);
});
afterAll(async () => {
  await server.remove();
  await provider.stop();
});
afterEach(() => {
  provider.forges = false;
  provider.wrong = {};
});

const settings = (more: Record<string, string> = {}) => ({
  DOODLA_PUBLIC_URL: 'http://doodla.school.example',
  DOODLA_OIDC_ISSUER: provider.issuer,
  DOODLA_OIDC_CLIENT_ID: provider.clientId,
  DOODLA_OIDC_CLIENT_SECRET: provider.clientSecret,
  ...more,
});

/** A browser on its way: keeps its cookies and follows one redirect at a time. */
class Walker {
  private readonly cookies = new Map<string, string>();

  constructor(private readonly url: string) {}

  /** Where an address leads; those of the server's public name go to the server that is tested. */
  async go(address: string): Promise<string> {
    const at = address.replace('http://doodla.school.example', this.url);
    const cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const response = await fetch(at, {
      redirect: 'manual',
      headers: at.startsWith(this.url) ? { cookie } : {},
    });
    for (const set of response.headers.getSetCookie()) {
      const [name, value] = set.split(';')[0]!.split('=') as [string, string];
      this.cookies.set(name, value);
    }
    return response.headers.get('location')!;
  }

  async me(): Promise<Me> {
    const client = new Client(this.url);
    client.cookie = [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    return (await client.send<Me>('GET', '/api/me')).body;
  }
}

/** Signs somebody in through the provider. Returns where that ends, and who one is then. */
async function signInAs(
  person: Claims,
  at = server,
  { school = '', by = provider } = {},
): Promise<{ end: string; me: Me }> {
  by.person = person;
  const walker = new Walker(at.url);
  const toProvider = await walker.go(`${at.url}/api/sign-in/school${school && `?at=${school}`}`);
  const end = await walker.go(await walker.go(toProvider));
  return { end, me: await walker.me() };
}

const invite = (email: string) => admin.send('POST', '/api/school/invitations', { name: 'Somebody', email });

describe('the school’s own sign-in', () => {
  it('lets a teacher in by their address, and from then on by their account', async () => {
    expect((await new Client(server.url).send<Me>('GET', '/api/me')).body.schoolSignIn).toBe(true);
    const first = await signInAs({ sub: 'ada-1', email: 'Ada@School.example', email_verified: true });
    expect([first.end, first.me.teacher?.name]).toEqual(['/', ADA.name]);
    const moved = await signInAs({ sub: 'ada-1', email: 'fenn@school.example', email_verified: true });
    expect(moved.me.teacher?.id).toBe(first.me.teacher!.id);
    // Whoever gets the address later does not get the teacher.
    const later = await signInAs({ sub: 'other', email: ADA.email, email_verified: true });
    expect([later.end, later.me.teacher]).toEqual(['/?problem=not-a-teacher', null]);
  });

  it('makes a teacher of whoever was invited, once and without a password', async () => {
    await invite('bea@school.example');
    const bea = { sub: 'bea-1', email: 'bea@school.example', email_verified: true, name: 'Bea Moor' };
    const { me } = await signInAs(bea);
    expect(me.teacher).toMatchObject({ name: 'Bea Moor', admin: false });
    const { body: teachers } = await admin.send<SchoolTeacher[]>('GET', '/api/school/teachers');
    expect(teachers.filter(({ email }) => email === 'bea@school.example')).toHaveLength(1);
    expect((await signInAs(bea)).me.teacher?.id).toBe(me.teacher!.id);
    const byPassword = await new Client(server.url).send('POST', '/api/sign-in', {
      email: bea.email,
      password: 'none',
    });
    expect(byPassword.status).toBe(401);
  });

  it('lets nobody in who is no teacher, or whose address is not certain', async () => {
    const student = await signInAs({ sub: 's-1', email: 'wren@school.example', email_verified: true });
    expect([student.end, student.me.teacher]).toEqual(['/?problem=not-a-teacher', null]);
    for (const claims of [{ email_verified: false }, {}, { email: 7, email_verified: true }]) {
      const { end } = await signInAs({ sub: 's-2', email: ADA.email, ...claims });
      expect(end).toBe('/?problem=address-not-verified');
    }
  });

  it('believes an address that is not said to be checked only where it is set so', async () => {
    const trusting = await startServer(settings({ DOODLA_OIDC_TRUST_EMAIL: '1' }));
    await signedIn(trusting);
    const { me } = await signInAs({ sub: 'a', email: ADA.email }, trusting);
    expect(me.teacher?.name).toBe(ADA.name);
    const { end } = await signInAs({ sub: 'b', email: ADA.email, email_verified: false }, trusting);
    expect(end).toBe('/?problem=address-not-verified');
    await trusting.remove();
  });

  // OpenID Connect Core 1.0 §3.1.3.7: what an ID token has to be checked for.
  it.each([
    ['its signature', () => (provider.forges = true)],
    ['its issuer', () => (provider.wrong = { iss: 'http://elsewhere.example' })],
    ['its audience', () => (provider.wrong = { aud: 'another' })],
    ['its nonce', () => (provider.wrong = { nonce: 'another' })],
  ])('refuses a token by %s', async (_, spoil) => {
    spoil();
    const { end, me } = await signInAs({ sub: 'ada-1', email: ADA.email, email_verified: true });
    expect([end, me.teacher]).toEqual(['/?problem=school-sign-in-failed', null]);
  });

  it('refuses a way back that this browser did not set out on', async () => {
    provider.person = { sub: 'ada-1', email: ADA.email, email_verified: true };
    const victim = new Walker(server.url);
    const other = new Walker(server.url);
    await victim.go(`${server.url}/api/sign-in/school`);
    const back = await other.go(await other.go(`${server.url}/api/sign-in/school`));
    expect(await victim.go(back)).toBe('/?problem=school-sign-in-failed');
    expect(await new Walker(server.url).go(back)).toBe('/?problem=school-sign-in-late');
  });

  it('leads back to the start page with what to do, whatever fails', async () => {
    const find = vi.spyOn(server.app.get(SchoolSignInService), 'finish');
    find.mockRejectedValueOnce(new Error('the database is locked'));
    const { end, me } = await signInAs({ sub: 'ada-1', email: ADA.email, email_verified: true });
    expect([end, me.teacher]).toEqual(['/?problem=school-sign-in-failed', null]);
    find.mockRestore();
  });

  it('says so where the provider cannot be reached, or there is none', async () => {
    const alone = await startServer(settings({ DOODLA_OIDC_ISSUER: 'http://127.0.0.1:9' }));
    expect(await new Walker(alone.url).go(`${alone.url}/api/sign-in/school`)).toBe(
      '/?problem=school-sign-in-away',
    );
    await alone.remove();
    const without = await startServer();
    expect((await new Client(without.url).send<Me>('GET', '/api/me')).body.schoolSignIn).toBe(false);
    expect(await new Walker(without.url).go(`${without.url}/api/sign-in/school`)).toBe(
      '/?problem=no-school-sign-in',
    );
    await without.remove();
  });
});

describe('a school among several', () => {
  it('has a sign-in of its own, and whoever comes by it comes to that school, whoever they are at another', async () => {
    const [own, at] = [await StandInProvider.start(), await startServer(settings())];
    try {
      const ada = await signedIn(at);
      const operator = await operatorOf(at);
      const head = { name: 'Ada North', email: ADA.email };
      const { id } = await anotherSchool(at, operator, 'north', head);
      const without = { issuer: own.issuer, clientId: own.clientId, trustEmail: false };
      const signIn = { ...without, clientSecret: own.clientSecret };
      const change = (what: object) => operator.send('PATCH', `/api/installation/schools/${id}`, what);
      const door = () => new Client(at.url).send<SchoolDoor>('GET', '/api/schools/North/door');
      expect((await door()).body).toEqual({ name: 'School north', schoolSignIn: false });
      expect((await change({ signIn })).status).toBe(204);
      expect((await door()).body.schoolSignIn).toBe(true);
      // Where there are several schools, nobody is sent to one that may not be theirs.
      expect((await ada.send<Me>('GET', '/api/me')).body.schoolSignIn).toBe(false);
      const told = await operator.send<InstallationFigures>('GET', '/api/installation');
      expect(JSON.stringify(told.body)).not.toContain(own.clientSecret);

      const person = { sub: 'one', email: ADA.email, email_verified: true };
      const there = await signInAs(person, at, { school: 'north', by: own });
      expect([there.end, there.me.teacher?.name]).toEqual(['/', 'Ada North']);
      const here = await signInAs(person, at);
      expect([here.end, here.me.teacher?.name]).toEqual(['/', ADA.name]);
      // A token of one school's provider is worth nothing at another, nor is an account of the same name.
      const crossed = { ...person, email: 'nobody@school.example' };
      expect((await signInAs({ ...crossed, sub: 'two' }, at, { school: 'north', by: own })).end).toBe(
        '/?problem=not-a-teacher',
      );
      // What is left out stays; a secret does not go along to another issuer.
      expect((await change({ signIn: without })).status).toBe(204);
      expect((await signInAs(person, at, { school: 'north', by: own })).end).toBe('/');
      await change({ signIn: { ...without, issuer: provider.issuer } });
      expect((await signInAs(person, at, { school: 'north' })).end).toBe('/?problem=school-sign-in-failed');
      await change({ signIn: null });
      expect(await new Walker(at.url).go(`${at.url}/api/sign-in/school?at=north`)).toBe(
        '/?problem=no-school-sign-in',
      );
    } finally {
      await at.remove();
      await own.stop();
    }
  });
});
