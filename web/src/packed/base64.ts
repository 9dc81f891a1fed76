/** Bytes as base64 (RFC 4648 §4). */
export async function toBase64(bytes: Blob): Promise<string> {
  const address = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error ?? new Error('not read'));
    reader.readAsDataURL(bytes);
  });
  return address.slice(address.indexOf(',') + 1);
}

/** The bytes that base64 stands for (RFC 4648 §4). Throws DOMException where it is none. */
export function fromBase64(text: string): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
}
