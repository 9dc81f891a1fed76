/** Fetches a whole sound or video file. Throws Error with a sentence. */
export async function fetchRecording(
  material: string,
  token: string | undefined,
  signal: AbortSignal,
  onLoaded: (part: number) => void,
): Promise<Blob> {
  const headers = token === undefined ? {} : { Authorization: `Bearer ${token}` };
  const response = await fetch(`/api/materials/${material}/file`, { headers, signal });
  if (!response.ok || !response.body)
    throw new Error('The recording could not be fetched. Reload to try again.');
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
