/** The part of culori that the tests use; the package ships no types. */
declare module 'culori' {
  export interface Color {
    mode: string;
  }
  export function wcagContrast(a: string, b: string): number;
  export function wcagLuminance(colour: string): number;
  export function parse(colour: string): Color;
  export function differenceCiede2000(): (a: Color, b: Color) => number;
  export function filterDeficiencyDeuter(severity: number): (colour: Color) => Color;
  export function filterDeficiencyProt(severity: number): (colour: Color) => Color;
  export function filterDeficiencyTrit(severity: number): (colour: Color) => Color;
}
