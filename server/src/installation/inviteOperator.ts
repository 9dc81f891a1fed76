import type { INestApplicationContext } from '@nestjs/common';
import { OperatorsService } from '../people/operators.service.js';
import { InvitationsService } from '../school/invitations.service.js';
import type { Settings } from '../settings/settings.js';

/**
 * What the link ends with by which whoever is set to look after the installation comes in for the first time; undefined where
 * nobody is set, or they have come in.
 */
export async function inviteOperator(
  app: INestApplicationContext,
  { operator: email }: Settings,
): Promise<string | undefined> {
  if (email === undefined || (await app.get(OperatorsService).byEmail(email.toLowerCase()))) return undefined;
  return app.get(InvitationsService, { strict: false }).inviteOperator({ name: '', email });
}
