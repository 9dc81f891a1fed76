/** The part of fontkit that the tests use; the package ships no types. */
declare module 'fontkit' {
  export interface Font {
    unitsPerEm: number;
    layout(text: string, features: Record<string, boolean>): { advanceWidth: number };
  }
  export function create(bytes: Uint8Array): Font;
}
