import { t } from '../words';
import type { Format } from './handoutOrder';

interface FormatWords {
  name: string;
  /** What one gets, and what for. */
  hint: string;
  /** What the button that makes it says. */
  make: string;
}

const pdf = t('handout.makeThePdf');
const pictures = t('handout.makeThePictures');

/** Formats in words. */
export const FORMAT_WORDS: Readonly<Record<Format, FormatWords>> = {
  pdf: { name: t('handout.pdf'), hint: t('handout.pdfHint'), make: pdf },
  annotated: { name: t('handout.annotated'), hint: t('handout.annotatedHint'), make: pdf },
  print: { name: t('handout.onPaper'), hint: t('handout.onPaperHint'), make: t('handout.print') },
  png: { name: t('handout.png'), hint: t('handout.pngHint'), make: pictures },
  webp: { name: t('handout.webp'), hint: t('handout.webpHint'), make: pictures },
  svg: { name: t('handout.svg'), hint: t('handout.svgHint'), make: pictures },
  slides: { name: t('handout.slides'), hint: t('handout.slidesHint'), make: t('handout.makeTheSlides') },
  webpage: { name: t('handout.webpage'), hint: t('handout.webpageHint'), make: t('handout.makeTheWebPage') },
  ink: { name: t('handout.ink'), hint: t('handout.inkHint'), make: t('handout.makeTheFile') },
  link: { name: t('handout.link'), hint: t('handout.linkHint'), make: t('handout.makeTheLink') },
  archive: {
    name: t('handout.archive'),
    hint: t('handout.archiveHint'),
    make: t('handout.makeTheFile'),
  },
  annotations: {
    name: t('handout.annotations'),
    hint: t('handout.annotationsHint'),
    make: t('handout.makeTheFile'),
  },
};
