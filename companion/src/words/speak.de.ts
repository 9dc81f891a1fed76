import { de as words } from '@web/words/de';
import { own } from './own.de';
import { bringWords } from './spoken';

bringWords('de', words, own);
