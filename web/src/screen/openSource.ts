import { SimulatedCamera } from './simulatedCamera';
import { SimulatedScreen } from './simulatedScreen';
import type { ScreenSource } from './sources';
import { openCamera, pickScreen } from './sources';

/** What can be shown live: a screen, a camera, and what stands for them while practising. */
export const SOURCE_KINDS = ['screen', 'camera', 'practiceScreen', 'practiceCamera'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** Opens something to be shown. Throws SourceError; undefined where the person changes their mind. */
export async function openSource(kind: SourceKind): Promise<ScreenSource | undefined> {
  switch (kind) {
    case 'screen':
      return pickScreen();
    case 'camera':
      return openCamera();
    case 'practiceScreen':
      return new SimulatedScreen();
    case 'practiceCamera':
      return new SimulatedCamera();
  }
}
