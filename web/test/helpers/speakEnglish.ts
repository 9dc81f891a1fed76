import { speakWords } from '../../src/words';
import { en } from '../../src/words/en';

// Texts are taken when modules are loaded, so the words come before everything else.
speakWords('en', en);
