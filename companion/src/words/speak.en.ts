import { en as words } from '@web/words/en';
import { own } from './own.en';
import { bringWords } from './spoken';

bringWords('en', words, own);
