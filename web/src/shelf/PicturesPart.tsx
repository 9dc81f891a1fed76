import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { fetchStored } from '../api/http';
import type { PageDesk } from '../room/pageDesk';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';
import { DragCard } from './DragCard';
import { DrawingCards } from './DrawingCards';
import type { ReadyPicture, Subject } from './readyPictures';
import { picturesFor, readyPictureFile, readyPicturesQuery, SUBJECT_NAMES } from './readyPictures';
import { SearchField } from './SearchField';

type Shown = Subject | 'drawings';

const SUBJECTS: readonly { value: Shown; name: string }[] = [
  ...Object.entries(SUBJECT_NAMES).map(([value, name]) => ({ value: value as Subject, name })),
  { value: 'drawings', name: t('drawings.lines') },
];

/** Ready pictures, by subject or by word, and line drawings. */
export function PicturesPart({ desk }: { desk: PageDesk }) {
  const [subject, setSubject] = useState<Shown>('animals');
  const [words, setWords] = useState('');
  const { data: index, error } = useQuery(readyPicturesQuery);
  const question = useDeferredValue(words);
  const found = index ? picturesFor(index, subject, question) : [];
  return (
    <>
      <div className="px-3">
        <SearchField label={t('shelf.searchPictures')} value={words} onChange={setWords} />
        {words === '' && (
          <SelectField<Shown>
            label={t('shelf.subject')}
            value={subject}
            options={SUBJECTS}
            onChange={setSubject}
          />
        )}
        {words !== '' && index && (
          <p role="status" className="mb-3 text-sm text-ink-soft">
            {t('shelf.picturesFound', { count: found.length })}
          </p>
        )}
      </div>
      <div className="min-h-0 grow overflow-y-auto px-2 pb-2">
        {error && <Problem>{error.message}</Problem>}
        <ul aria-label={t('shelf.readyPictures')} className="grid grid-cols-4 gap-0.5">
          {found.map((picture) => (
            <li key={picture[0]} className="[content-visibility:auto] [contain-intrinsic-height:5rem]">
              <PictureCard desk={desk} picture={picture} />
            </li>
          ))}
        </ul>
        {(question !== '' || subject === 'drawings') && <DrawingCards desk={desk} question={question} />}
      </div>
    </>
  );
}

function PictureCard({ desk, picture: [file, name] }: { desk: PageDesk; picture: ReadyPicture }) {
  const use = async (at?: { x: number; y: number }) => {
    try {
      const svg = await (await fetchStored(readyPictureFile(file))).blob();
      await desk.pictureActions.place([new Blob([svg], { type: 'image/svg+xml' })], at, name);
    } catch (error) {
      desk.tellProblem((error as Error).message);
    }
  };
  return (
    <DragCard
      desk={desk}
      label={name}
      picture={
        <img
          src={readyPictureFile(file)}
          alt=""
          loading="lazy"
          draggable={false}
          className="aspect-square w-full object-contain"
        />
      }
      onUse={(at) => void use(at)}
    />
  );
}
