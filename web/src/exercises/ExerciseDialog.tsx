import type { Point } from '@doodla/core';
import type { ExerciseKind, Level, Medium } from '@doodla/core/exercises';
import {
  COUNTED,
  EXERCISE_KINDS,
  LEVELS_OF,
  LISTLESS,
  listOfTable,
  MAPPED,
  MOST_LETTERS,
} from '@doodla/core/exercises';
import type { MapView } from '@doodla/core/maps';
import { Image, Shuffle, Table } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { NumberField } from '../ui/NumberField';
import { Problem } from '../ui/Problem';
import { SelectField } from '../ui/SelectField';
import { TextField } from '../ui/TextField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import { ExercisePreview } from './ExercisePreview';
import { exerciseWords, KINDS, LEVEL_NAMES, levelHint, sayProblem, taskOf } from './exerciseTexts';
import type { SentOrder } from './exercise.worker';
import { FileButton } from '../ui/FileButton';
import { MapField } from './MapField';
import { mediaOf, storePictures } from './mediaItems';
import { putExercise, roomOn } from './putExercise';
import { useExercise } from './useExercise';

/** Kinds that may have a list, and need none. */
const TAKES_A_LIST: readonly ExerciseKind[] = ['elements', 'players', ...MAPPED];
/** Largest table that is read, bytes. */
const MOST_TABLE = 1_000_000;

/** What was typed for a kind is there again when the sheet is opened again, in this window. */
const draftName = (kind: ExerciseKind) => `doodla.exercise ${kind}`;
const draftOf = (kind: ExerciseKind) => sessionStorage.getItem(draftName(kind)) ?? '';

interface Choice {
  kind: ExerciseKind;
  title: string;
  text: string;
  level: Level;
  seed: number;
  count: number;
  view: MapView;
  isNew: boolean;
  pictures: ReadonlyMap<string, Medium>;
  points: readonly Point[];
}

const chosen = (kind: ExerciseKind): Pick<Choice, 'kind' | 'title' | 'text' | 'level' | 'points'> => ({
  kind,
  title: taskOf(kind),
  text: draftOf(kind),
  level: LEVELS_OF[kind][0] ?? 'medium',
  points: [],
});

const anySeed = () => crypto.getRandomValues(new Uint32Array(1))[0]!;

/** Makes an exercise of a list: it is seen as it is typed, and becomes a page of ordinary marks. */
export default function ExerciseDialog({ desk, onClose }: { desk: PageDesk; onClose(): void }) {
  const [choice, setChoice] = useState<Choice>(() => ({
    ...chosen('match'),
    seed: anySeed(),
    count: 2,
    view: 'world',
    isNew: true,
    pictures: new Map(),
  }));
  const [isSolved, setSolved] = useState(false);
  const [problem, setProblem] = useState<string>();
  const pages = useStore(desk.pages);
  const change = (set: Partial<Choice>) => {
    setProblem(undefined);
    if (set.text !== undefined) sessionStorage.setItem(draftName(set.kind ?? choice.kind), set.text);
    setChoice({ ...choice, ...set });
  };
  const { page } = desk;
  const order = useMemo((): SentOrder => {
    const { kind, title, text, level, seed, count, view, isNew, pictures, points } = choice;
    const media = mediaOf(pictures, pages);
    const typed = text.trim() === '' && !LISTLESS.includes(kind) ? t(KINDS[kind][3]) : text;
    return {
      kind,
      title,
      text: typed,
      level,
      seed,
      count,
      view,
      points,
      media,
      area: roomOn(page, isNew),
      words: exerciseWords(),
    };
  }, [choice, pages, page]);
  const { made, isCurrent } = useExercise(
    order,
    useCallback((error: Error) => setProblem(error.message), []),
  );
  const isExample = choice.text.trim() === '' && !LISTLESS.includes(choice.kind);
  const most = COUNTED[choice.kind];
  const why = made && 'problem' in made ? sayProblem(made.problem, made.values) : undefined;
  const put = () => {
    if (isExample) return setProblem(t('exercises.typeFirst'));
    if (!isCurrent || !made || !('marks' in made)) return;
    const { isNew, title, kind } = choice;
    const there = putExercise(desk, made.marks, { isNew, title: title === '' ? t(KINDS[kind][0]) : title });
    if (there === undefined) return setProblem(t('material.nothingMayBePut'));
    if (isNew) desk.turnTo(there.page);
    onClose();
  };
  const read = async (file: File) => {
    if (file.size > MOST_TABLE) return setProblem(t('exercises.tableTooLarge'));
    try {
      change({ text: listOfTable(await file.text()).slice(0, MOST_LETTERS) });
    } catch {
      // It was moved or taken away since it was chosen.
      setProblem(t('exercises.tableGone'));
    }
  };
  const add = async (files: readonly File[]) => {
    try {
      const stored = await storePictures(desk, files);
      const lines = [...stored.keys()].map((name) =>
        choice.kind === 'label' || choice.kind === 'groups' ? name : `${name} = `,
      );
      const text = [choice.text.trimEnd(), ...lines].filter((line) => line !== '').join('\n');
      change({ pictures: new Map([...choice.pictures, ...stored]), text });
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <Modal title={t('exercises.title')} description={t('exercises.how')} open wide onOpenChange={onClose}>
      <div className="grid gap-6 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <div>
          <SelectField<ExerciseKind>
            label={t('exercises.kind')}
            value={choice.kind}
            options={EXERCISE_KINDS.map((value) => ({ value, name: t(KINDS[value][0]) }))}
            onChange={(kind) => change(chosen(kind))}
          />
          <TextField
            label={t('exercises.task')}
            value={choice.title}
            maxLength={200}
            onChange={(event) => change({ title: event.target.value })}
          />
          {most !== undefined && (
            <NumberField
              label={t('exercises.howMany')}
              value={choice.count}
              min={1}
              max={most}
              onChange={(count) => change({ count })}
            />
          )}
          {MAPPED.includes(choice.kind) && (
            <MapField view={choice.view} onChange={(view) => change({ view })} />
          )}
          {(!LISTLESS.includes(choice.kind) || TAKES_A_LIST.includes(choice.kind)) && (
            <ListField choice={choice} onChange={change} onTable={read} onPictures={add} />
          )}
        </div>
        <div>
          {made && 'marks' in made ? (
            <ExercisePreview
              marks={made.marks}
              room={order.area}
              isSolved={isSolved}
              pictures={desk.pictures}
              onPoint={
                choice.kind === 'label' ? (point) => change({ points: withPoint(choice, point) }) : undefined
              }
            />
          ) : (
            <div className="grid aspect-video place-items-center rounded-lg border-2 border-dashed border-paper-line p-4 text-center">
              <p role="status">{why ?? t('exercises.isBeingMade')}</p>
            </div>
          )}
          <p className="my-2 text-sm text-ink-soft">{isExample ? t('exercises.thisIsAnExample') : ' '}</p>
          {choice.kind === 'label' && <p className="mb-2">{sayNextPoint(choice)}</p>}
          <div className="flex flex-wrap items-center gap-x-6">
            <Tick checked={isSolved} onChange={setSolved}>
              {t('exercises.withAnswers')}
            </Tick>
            <Button
              className="mb-4"
              icon={<Shuffle aria-hidden size={18} />}
              onClick={() => change({ seed: anySeed() })}
            >
              {t('exercises.shuffle')}
            </Button>
          </div>
          <Problem>{problem}</Problem>
          <div className="flex flex-wrap items-center gap-x-6">
            <Button
              look="main"
              className="mb-4"
              disabled={!isCurrent || !made || !('marks' in made)}
              onClick={put}
            >
              {t(choice.isNew ? 'exercises.putOnNewPage' : 'exercises.putHere')}
            </Button>
            <Tick checked={!choice.isNew} onChange={(here) => change({ isNew: !here })}>
              {t('exercises.here')}
            </Tick>
          </div>
        </div>
      </div>
    </Modal>
  );
}

interface ListFieldProps {
  choice: Choice;
  onChange(set: Partial<Choice>): void;
  onTable(file: File): Promise<void>;
  onPictures(files: readonly File[]): Promise<void>;
}

/** The list that an exercise is made of, how hard it is, and what its items can stand for. */
function ListField({ choice, onChange, onTable, onPictures }: ListFieldProps) {
  const { kind, level } = choice;
  const levels = LEVELS_OF[kind];
  const [, , how, example] = KINDS[kind];
  return (
    <>
      <label htmlFor="exercise-list" className="block font-bold">
        {t('exercises.list')}
      </label>
      <textarea
        id="exercise-list"
        rows={7}
        value={choice.text}
        maxLength={MOST_LETTERS}
        placeholder={t(example)}
        aria-describedby="exercise-how"
        onChange={(event) => onChange({ text: event.target.value })}
        className="mt-1 mb-3 block w-full rounded-xl border-2 border-paper-line bg-white p-2"
      />
      <p id="exercise-how" className="mb-3 text-sm text-ink-soft">
        {t(how)}
      </p>
      <div className="mb-4 flex flex-wrap gap-2">
        <FileButton
          label={t('exercises.readTable')}
          accept=".csv,.tsv,.txt,text/csv"
          icon={<Table aria-hidden size={18} />}
          onFiles={([file]) => file && void onTable(file)}
        />
        {!LISTLESS.includes(kind) && (
          <FileButton
            label={t('exercises.addPictures')}
            accept="image/*"
            several
            icon={<Image aria-hidden size={18} />}
            onFiles={(files) => void onPictures(files)}
          />
        )}
      </div>
      {levels.length > 0 && (
        <SelectField<Level>
          label={t('exercises.level')}
          value={level}
          hint={levelHint(kind, level)}
          options={levels.map((value) => ({ value, name: t(LEVEL_NAMES[value]) }))}
          onChange={(value) => onChange({ level: value })}
        />
      )}
    </>
  );
}

const namesToPlace = ({ text }: Choice) =>
  text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .slice(1);

/** Where the words belong, with one more: once all have a place, the first is placed again. */
function withPoint(choice: Choice, point: Point): Point[] {
  const { points } = choice;
  return points.length >= namesToPlace(choice).length ? [point] : [...points, point];
}

function sayNextPoint(choice: Choice): string {
  const name = namesToPlace(choice)[choice.points.length];
  return name === undefined ? t('exercises.allPlaced') : t('exercises.placeNext', { name });
}
