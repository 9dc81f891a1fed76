import type { StoredReply } from '@doodla/core';
import { fileForm, request, RequestError } from './http';
import { t } from '../words';

/**
 * Stores a picture with a lesson or class, as it is, and returns its id. `address` is the lesson's or class's.
 * Throws RequestError.
 */
export async function uploadPicture(address: string, picture: Blob, token?: string): Promise<string> {
  const form = fileForm(picture, 'picture');
  const { id } = await request<StoredReply>('POST', `${address}/pictures`, form, { token }).catch(
    (error: RequestError) => {
      if (error.code !== 'unreachable') throw error;
      throw new RequestError(0, error.code, t('api.thePictureCouldNotBe'));
    },
  );
  return id;
}
