import type { InstallationFigures, InvitationReply, SchoolFigures } from '@doodla/core';
import { inviteOperator } from '../../src/installation/inviteOperator.js';
import { newSession } from '../../src/people/sessionToken.js';
import { readSettings } from '../../src/settings/settings.js';
import type { TestServer } from './server.js';
import { ADA, Client } from './server.js';

export const OPERATOR = { name: 'Otis Rook', email: 'otis@district.example', password: 'keys-and-doors' };

export const tokenOf = ({ url }: InvitationReply) => url.split('/invited/')[1]!;

/** Takes an invitation up. */
export async function accepted(
  server: Pick<TestServer, 'url'>,
  token: string,
  what: { name: string; password?: string },
): Promise<Client> {
  const client = new Client(server.url);
  await client.send('POST', `/api/invitations/${token}`, { password: ADA.password, ...what });
  return client;
}

/** Somebody who looks after the installation. */
export async function operatorOf(server: TestServer): Promise<Client> {
  const token = await inviteOperator(server.app, readSettings({ DOODLA_OPERATOR: OPERATOR.email }));
  return accepted(server, token!, OPERATOR);
}

/** Puts somebody who looks after the installation into a PostgreSQL database, and signs them in. Returns the token. */
export async function operatorSession(
  query: (text: string, values: readonly unknown[]) => Promise<unknown>,
): Promise<string> {
  const { token, kept } = newSession();
  await query('INSERT INTO operator VALUES ($1, $2, $3, $4, $5)', [
    'o',
    'Otis Rook',
    'o@o.example',
    'none',
    1,
  ]);
  await query('INSERT INTO operator_session VALUES ($1, $2, $3)', [kept.tokenHash, 'o', kept.expiresAt]);
  return token;
}

export async function figuresOf(operator: Client): Promise<InstallationFigures> {
  return (await operator.send<InstallationFigures>('GET', '/api/installation')).body;
}

export async function schoolOf(operator: Client, slug: string): Promise<SchoolFigures> {
  return (await figuresOf(operator)).schools.find((school) => school.slug === slug)!;
}

/** Another school, and whoever looks after it. */
export async function anotherSchool(
  server: Pick<TestServer, 'url'>,
  operator: Client,
  slug: string,
  admin: { name: string; email: string },
): Promise<{ id: string; admin: Client }> {
  const { body } = await operator.send<InvitationReply>('POST', '/api/installation/schools', {
    ...{ name: `School ${slug}`, slug },
    ...{ adminName: admin.name, adminEmail: admin.email },
  });
  const client = await accepted(server, tokenOf(body), admin);
  return { id: (await schoolOf(operator, slug)).id, admin: client };
}
