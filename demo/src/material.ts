// Makes the files in demo/material again.
import { writeFileSync } from 'node:fs';
import { articleHtml } from './article.js';
import { makeDeck } from './deck.js';
import { makeWorksheet } from './worksheet.js';

const folder = new URL('../material/', import.meta.url);

writeFileSync(new URL('how-bridges-work.pdf', folder), await makeDeck());
writeFileSync(new URL('bridges-worksheet.pdf', folder), await makeWorksheet());
writeFileSync(new URL('footbridge.html', folder), articleHtml());
