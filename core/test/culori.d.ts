/** The part of culori that the tests use; the package ships no types. */
declare module 'culori' {
  export function wcagContrast(a: string, b: string): number;
  export function wcagLuminance(colour: string): number;
  export function converter(mode: 'rgb'): (colour: { mode: 'hsl'; h: number; s: number; l: number }) => {
    r: number;
    g: number;
    b: number;
  };
}
