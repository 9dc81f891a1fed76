import type { HandoutPage } from '@doodla/core/handout';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { removalsOf, wordsQuery } from '../api/lessons';
import type { Room } from '../room/room';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { Names, WordPart } from './classWords';
import { partsOf, toldParagraphs, WORD_PART_NAMES } from './classWords';

/** Makes the pages of words that were chosen; undefined where none are. */
export type WordsAfter = (() => Promise<readonly HandoutPage[]>) | undefined;

interface WordPartsProps {
  room: Room;
  names: Names;
  /** What people are called instead of their names, by id. */
  called: Readonly<Record<string, string>> | undefined;
  onChange(words: WordsAfter): void;
}

/** What else of a class is handed out: notes, chat, answers, what was removed. */
export function WordParts({ room, names, called, onChange }: WordPartsProps) {
  const sitting = room.sitting!;
  const [chosen, setChosen] = useState<ReadonlySet<WordPart>>(new Set());
  const { data: words } = useQuery(wordsQuery(sitting));
  const { data: removals } = useQuery({
    queryKey: ['removals', sitting],
    queryFn: () => removalsOf(sitting),
    staleTime: 0,
  });
  const told = words && removals && { ...words, removals };
  useEffect(() => {
    if (!told || chosen.size === 0) return onChange(undefined);
    onChange(async () => {
      const { wordPages } = await import('@doodla/core/notes');
      const chat = told.chat.map((message) =>
        message.name === null ? message : { ...message, name: called?.[message.author] ?? message.name },
      );
      return wordPages(toldParagraphs({ ...told, chat }, chosen, names));
    });
    // The words are asked for once for each opening of the sheet, and the names follow from what they are called.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [words, removals, chosen, called !== undefined]);
  const parts = told ? partsOf(told) : [];
  if (parts.length === 0) return null;
  const choose = (part: WordPart, on: boolean) =>
    setChosen((before) => new Set([...before].filter((one) => one !== part).concat(on ? part : [])));
  return (
    <fieldset className="mb-2">
      <legend className="font-bold">{t('handout.alsoWords')}</legend>
      {parts.map((part) => (
        <Tick key={part} checked={chosen.has(part)} onChange={(on) => choose(part, on)}>
          {t(WORD_PART_NAMES[part])}
        </Tick>
      ))}
    </fieldset>
  );
}
