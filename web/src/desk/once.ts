/** Fetches something once; where that fails, it is tried again when it is wanted again. */
export function once<T>(fetchIt: () => Promise<T>): () => Promise<T> {
  let fetched: Promise<T> | undefined;
  return () => {
    fetched ??= fetchIt().catch((error: unknown) => {
      fetched = undefined;
      throw error;
    });
    return fetched;
  };
}
