import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { fetchStored } from '../api/http';
import type { PageDesk } from '../room/pageDesk';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { t } from '../words';
import { DragCard } from './DragCard';
import type { ReadyPicture, Subject } from './readyPictures';
import { picturesFor, readyPictureFile, readyPicturesQuery, SUBJECT_NAMES } from './readyPictures';
import { SearchField } from './SearchField';

const SUBJECTS = Object.entries(SUBJECT_NAMES).map(([value, name]) => ({ value: value as Subject, name }));

/** Ready pictures, by subject or by word. */
export function PicturesPart({ desk }: { desk: PageDesk }) {
  const [subject, setSubject] = useState<Subject>('animals');
  const [words, setWords] = useState('');
  const { data: index, error } = useQuery(readyPicturesQuery);
  const question = useDeferredValue(words);
  const found = index ? picturesFor(index, subject, question) : [];
  return (
    <>
      <div className="px-3">
        <SearchField label={t('shelf.searchPictures')} value={words} onChange={setWords} />
        {words === '' && (
          <SelectField<Subject>
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
