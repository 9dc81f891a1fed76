import './app/theme.css';
import { applyTypeSize } from './ui/typeSize';
import { watchWindowRoom } from './ui/windowRoom';
import { chosenLanguage, speak } from './words';

applyTypeSize();
watchWindowRoom();
const root = document.getElementById('root')!;
speak(chosenLanguage())
  .then(() => import('./app/start'))
  .then(({ start }) => start(root))
  .catch((error: unknown) => {
    console.error(error);
    // There may be no words yet.
    root.textContent = 'Doodla could not be loaded. Please load this page again.';
  });
