import { errorOf } from './http';

/**
 * Stores a picture with a lesson or class, as it is, and returns its id. `address` is the lesson's or class's.
 * Throws an error with a sentence.
 */
export async function uploadPicture(address: string, picture: Blob, token?: string): Promise<string> {
  const form = new FormData();
  form.append('file', picture, 'picture');
  const headers = token === undefined ? {} : { Authorization: `Bearer ${token}` };
  const response = await fetch(`${address}/pictures`, { method: 'POST', body: form, headers }).catch(() => {
    throw new Error('The picture could not be sent. Please check the connection and try again.');
  });
  const text = await response.text();
  if (!response.ok) throw errorOf(response.status, text);
  return (JSON.parse(text) as { id: string }).id;
}
