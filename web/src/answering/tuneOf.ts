import { FigureError, pitchesOf } from '@doodla/core/figures';
import { playTune } from './tune';

/** Plays notes as they are typed. Returns whether they can be read. */
export function playNotes(notes: string): boolean {
  try {
    playTune(pitchesOf(notes));
    return true;
  } catch (error) {
    if (error instanceof FigureError) return false;
    throw error;
  }
}
