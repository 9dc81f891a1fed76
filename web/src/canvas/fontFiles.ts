import type { Face } from '@doodla/core';
import andikaBold from '@expo-google-fonts/andika/Andika_700Bold.ttf?url';
import andikaBoldItalic from '@expo-google-fonts/andika/Andika_700Bold_Italic.ttf?url';
import andikaItalic from '@expo-google-fonts/andika/Andika_400Regular_Italic.ttf?url';
import andika from '@expo-google-fonts/andika/Andika_400Regular.ttf?url';
import monoBold from '@expo-google-fonts/jetbrains-mono/700Bold/JetBrainsMono_700Bold.ttf?url';
import monoBoldItalic from '@expo-google-fonts/jetbrains-mono/700Bold_Italic/JetBrainsMono_700Bold_Italic.ttf?url';
import monoItalic from '@expo-google-fonts/jetbrains-mono/400Regular_Italic/JetBrainsMono_400Regular_Italic.ttf?url';
import mono from '@expo-google-fonts/jetbrains-mono/400Regular/JetBrainsMono_400Regular.ttf?url';
import serifBold from '@expo-google-fonts/noto-serif/700Bold/NotoSerif_700Bold.ttf?url';
import serifBoldItalic from '@expo-google-fonts/noto-serif/700Bold_Italic/NotoSerif_700Bold_Italic.ttf?url';
import serifItalic from '@expo-google-fonts/noto-serif/400Regular_Italic/NotoSerif_400Regular_Italic.ttf?url';
import serif from '@expo-google-fonts/noto-serif/400Regular/NotoSerif_400Regular.ttf?url';
import hand from '@expo-google-fonts/patrick-hand/400Regular/PatrickHand_400Regular.ttf?url';

/** Addresses of the font files that screen and handout both use. */
export const fontFiles: Record<Face, string> = {
  andika,
  'andika-bold': andikaBold,
  'andika-italic': andikaItalic,
  'andika-bold-italic': andikaBoldItalic,
  serif,
  'serif-bold': serifBold,
  'serif-italic': serifItalic,
  'serif-bold-italic': serifBoldItalic,
  mono,
  'mono-bold': monoBold,
  'mono-italic': monoItalic,
  'mono-bold-italic': monoBoldItalic,
  hand,
};
