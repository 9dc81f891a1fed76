/** The part of libheif-js that is used. */
declare module 'libheif-js/wasm-bundle' {
  interface HeifImage {
    get_width(): number;
    get_height(): number;
    display(
      into: { data: Uint8ClampedArray; width: number; height: number },
      done: (shown: object | null) => void,
    ): void;
  }
  const libheif: { HeifDecoder: new () => { decode(bytes: ArrayBuffer): HeifImage[] } };
  export default libheif;
}
