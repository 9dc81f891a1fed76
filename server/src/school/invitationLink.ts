import type { InvitationReply } from '@doodla/core';
import type { Request } from 'express';
import { publicAddress } from '../http/publicAddress.js';
import type { Settings } from '../settings/settings.js';

/** The link of an invitation, by what it ends with. */
export function invitationLink(token: string, request: Request, settings: Settings): InvitationReply {
  return { url: `${publicAddress(request, settings)}/invited/${token}` };
}
