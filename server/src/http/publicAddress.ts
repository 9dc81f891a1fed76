import type { Request } from 'express';
import type { Settings } from '../settings/settings.js';

/** The address under which the school has this server: as it is set, else as it was asked for. */
export function publicAddress(request: Request, { publicUrl }: Settings): string {
  return publicUrl ?? `${request.protocol}://${request.get('host')}`;
}
