import type { Face } from '@doodla/core';

/** CSS family, weight and slant of each face. */
export function cssFont(face: Face, size: number): string {
  const [family, ...cuts] = face.split('-');
  const slant = cuts.includes('italic') ? 'italic ' : '';
  const weight = cuts.includes('bold') ? '700 ' : '';
  return `${slant}${weight}${size}px ${family === 'andika' ? 'Andika' : `Doodla-${family}`}`;
}
