import { fetchStored } from '../api/http';
import { t } from '../words';

/** Fetches a whole sound or video file. Throws Error with a sentence. */
export async function fetchRecording(
  material: string,
  token: string | undefined,
  signal: AbortSignal,
  onLoaded: (part: number) => void,
): Promise<Blob> {
  const problem = t('media.theRecordingCouldNotBe');
  const response = await fetchStored(`/api/materials/${material}/file`, { token, signal }, problem);
  if (!response.body) throw new Error(problem);
  const total = Number(response.headers.get('content-length')) || Infinity;
  const parts: BlobPart[] = [];
  let received = 0;
  const reader = response.body.getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    parts.push(read.value);
    received += read.value.length;
    onLoaded(Math.min(1, received / total));
  }
  return new Blob(parts, { type: response.headers.get('content-type') ?? '' });
}
