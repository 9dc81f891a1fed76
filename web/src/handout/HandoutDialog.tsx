import { pagesOfList } from '@doodla/core';
import type { Loss } from '@doodla/core/handout';
import { useCallback, useEffect, useRef, useState } from 'react';
import { drawThumbnail } from '../room/thumbnail';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import type { DrawPage } from '../ui/PageChoice';
import { PageChoice } from '../ui/PageChoice';
import { ProgressBar } from '../ui/ProgressBar';
import { SaveLink } from '../ui/SaveLink';
import { SelectField } from '../ui/SelectField';
import type { PageDesk } from '../room/pageDesk';
import { footWords } from './footWords';
import { FORMAT_WORDS } from './formatNames';
import type { Format, HandoutChoice } from './handoutOrder';
import { FORMATS, USUAL } from './handoutOrder';
import { calledBy, studentsOf } from './handoutSets';
import { LayoutParts } from './LayoutParts';
import { LOSSES } from './losses';
import { makeHandout } from './makeHandout';
import { LinkParts, SharedLink } from './LinkParts';
import { MarkParts } from './MarkParts';
import { printFile } from './printFile';
import type { LinkChoice } from './shareLink';
import { shareLink, USUAL_LINK } from './shareLink';
import type { WordsAfter } from './WordParts';
import { WordParts } from './WordParts';
import { t } from '../words';

interface HandoutDialogProps {
  desk: PageDesk;
  title: string;
  onClose(): void;
}

type Stage =
  | { at: 'ready' }
  | { at: 'making'; part: number }
  | { at: 'made'; url: string; name: string; losses: readonly Loss[] }
  | { at: 'shared'; url: string }
  | { at: 'failed'; message: string };

const cancelled = () => new DOMException('Cancelled', 'AbortError');

/** Makes the marked-up pages into files to save, print or send. */
export default function HandoutDialog({ desk, title, onClose }: HandoutDialogProps) {
  const [stage, setStage] = useState<Stage>({ at: 'ready' });
  const [choice, setChoice] = useState(USUAL);
  const [link, setLink] = useState(USUAL_LINK);
  const [list, setList] = useState('');
  const [wordsAfter, setWordsAfter] = useState<WordsAfter>();
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(cancelled()), []);
  useEffect(() => () => (stage.at === 'made' ? URL.revokeObjectURL(stage.url) : undefined), [stage]);
  const change = (set: Partial<HandoutChoice>) => setChoice((before) => ({ ...before, ...set }));

  const pages = desk.pages.get();
  const some = pagesOfList(list, pages.length);
  const only = some && new Set(some.map((index) => pages[index]!.id));
  const make = async () => {
    abort.current = new AbortController();
    setStage({ at: 'making', part: 0 });
    try {
      const after = (await wordsAfter?.()) ?? [];
      const { name, blob, losses } = await makeHandout(desk, {
        title,
        choice,
        signal: abort.current.signal,
        onProgress: (done, total) => setStage({ at: 'making', part: done / total }),
        only,
        after,
        foot: footWords(choice, title, Date.now()),
      });
      if (choice.format === 'link') {
        const { url } = await shareLink(desk, { title, shown: blob, link });
        setStage({ at: 'shared', url });
      } else if (choice.format === 'print') {
        await printFile(blob);
        setStage({ at: 'ready' });
      } else setStage({ at: 'made', url: URL.createObjectURL(blob), name, losses });
    } catch (error) {
      if (abort.current.signal.aborted) setStage({ at: 'ready' });
      else setStage({ at: 'failed', message: (error as Error).message });
    }
  };

  return (
    <Modal
      title={t('common.handOut')}
      description={t('handout.thePagesAndWhatIsOnThem')}
      wide
      open
      onOpenChange={onClose}
    >
      {stage.at === 'ready' && (
        <Choices
          desk={desk}
          choice={choice}
          change={change}
          link={link}
          changeLink={(set) => setLink((before) => ({ ...before, ...set }))}
          list={list}
          setList={setList}
          onWords={(words) => setWordsAfter(() => words)}
        />
      )}
      {stage.at === 'making' && (
        <div className="mb-5">
          <ProgressBar label={t('handout.makingTheHandout')} part={stage.part} />
        </div>
      )}
      {stage.at === 'made' && stage.losses.length > 0 && <Losses losses={stage.losses} />}
      {stage.at === 'shared' && (
        <div className="mb-5">
          <SharedLink url={stage.url} />
        </div>
      )}
      {stage.at === 'failed' && (
        <p role="alert" className="mb-5 font-bold text-alarm">
          {t('handout.itCouldNotBeMade', { why: stage.message })}
        </p>
      )}
      <p
        role="status"
        className={stage.at === 'made' || stage.at === 'shared' ? 'mb-5 font-bold' : undefined}
      >
        {stage.at === 'made' && t('handout.itIsReady')}
        {stage.at === 'shared' && t('handout.linkIsThere')}
      </p>
      <div className="flex flex-wrap gap-3">
        {stage.at === 'made' ? (
          <>
            <SaveLink url={stage.url} name={stage.name} />
            <Button onClick={() => setStage({ at: 'ready' })}>{t('handout.another')}</Button>
          </>
        ) : stage.at === 'shared' ? (
          <Button onClick={() => setStage({ at: 'ready' })}>{t('handout.another')}</Button>
        ) : stage.at === 'making' ? (
          <Button onClick={() => abort.current.abort(cancelled())}>{t('common.cancel')}</Button>
        ) : (
          <Button look="main" disabled={!only} onClick={() => void make()}>
            {FORMAT_WORDS[choice.format].make}
          </Button>
        )}
      </div>
    </Modal>
  );
}

interface ChoicesProps {
  desk: PageDesk;
  choice: HandoutChoice;
  change(set: Partial<HandoutChoice>): void;
  link: LinkChoice;
  changeLink(set: Partial<LinkChoice>): void;
  list: string;
  setList(list: string): void;
  onWords(words: WordsAfter): void;
}

/** What is handed out, and as what. */
function Choices({ desk, choice, change, link, changeLink, list, setList, onWords }: ChoicesProps) {
  const pages = desk.pages.get();
  const isClass = desk.isTeacher && desk.sitting !== undefined;
  const students = isClass ? studentsOf(desk) : [];
  const hasWeb = pages.some(({ surface }) => surface.kind === 'web');
  const isOwner = desk.isTeacher && desk.room.device === undefined;
  const isOffered: Partial<Record<Format, boolean>> = {
    annotations: hasWeb,
    archive: isOwner,
    link: isOwner,
  };
  const formats = FORMATS.filter((format) => isOffered[format] ?? true);
  const isAll = choice.format === 'archive';
  const hasPatches =
    desk.isTeacher &&
    desk.layers.some(({ log }) => [...log.state.marks.values()].some(({ kind }) => kind === 'patch'));
  const hasRules =
    desk.isTeacher && desk.layers.some(({ log }) => [...log.state.marks.values()].some(({ rule }) => rule));
  const draw = useCallback<DrawPage>(
    (canvas, index, width) => drawThumbnail(canvas, desk.pages.get()[index]!, desk, width),
    [desk],
  );
  const { nameOf, people } = calledBy(students, choice.initials);
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(min(100%,20rem),1fr))] gap-x-8">
      <div>
        <SelectField
          label={t('handout.as')}
          value={choice.format}
          options={formats.map((value) => ({ value, name: FORMAT_WORDS[value].name }))}
          hint={FORMAT_WORDS[choice.format].hint}
          onChange={(format) =>
            change({ format, ...(format === 'link' && choice.whose === 'each' && { whose: 'everybody' }) })
          }
        />
        {!isAll && (
          <MarkParts
            choice={choice}
            students={students}
            isClass={isClass}
            hasPatches={hasPatches}
            hasRules={hasRules}
            change={change}
          />
        )}
        <LayoutParts choice={choice} change={change} />
        {choice.format === 'link' && <LinkParts lesson={desk.room.lesson} link={link} change={changeLink} />}
        {isClass && !isAll && (
          <WordParts
            room={desk.room}
            names={{ nameOf, pages: desk.room.pages }}
            called={choice.initials ? people : undefined}
            onChange={onWords}
          />
        )}
      </div>
      {pages.length > 1 && !isAll && (
        <PageChoice count={pages.length} value={list} onChange={setList} draw={draw} />
      )}
    </div>
  );
}

function Losses({ losses }: { losses: readonly Loss[] }) {
  return (
    <div role="status" className="mb-5">
      <p className="mb-1 font-bold">{t('handout.theHandoutDoesNotHave')}</p>
      <ul className="list-disc ps-5">
        {losses.map((loss) => (
          <li key={loss}>{LOSSES[loss]}</li>
        ))}
      </ul>
    </div>
  );
}
