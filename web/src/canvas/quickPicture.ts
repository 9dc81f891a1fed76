import { fetchStored } from '../api/http';

/** The server's picture of a page of a PDF, from 0. Rejects where there is none. */
export async function quickPicture(material: string, index: number, token: string): Promise<ImageBitmap> {
  const response = await fetchStored(`/api/materials/${material}/pages/${index}/picture`, { token });
  return createImageBitmap(await response.blob());
}
