import { useEffect, useMemo, useState } from 'react';
import { useStore } from '../store/useStore';
import { endSitting, keepPages } from '../api/lessons';
import type { SittingDetail } from '@doodla/core';
import { ownPages } from '../material/broughtIn';
import { Button } from '../ui/Button';
import { Tick } from '../ui/Tick';
import { Problem } from '../ui/Problem';
import { Modal } from '../ui/Modal';
import { TextField } from '../ui/TextField';
import type { KeptName } from './keptName';
import { knownGroups, rememberGroup, titleOf } from './keptName';
import { PagePreview } from './PagePreview';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { dateAndTime } from '../words/dates';

interface EndDialogProps {
  desk: PageDesk;
  sitting: SittingDetail;
  onEnded(): void;
  onClose(): void;
}

/** Ends a class: keep its marks under a name, or drop them, with what would be lost in sight. */
export default function EndDialog({ desk, sitting, onEnded, onClose }: EndDialogProps) {
  const [name, setName] = useState<KeptName>(() => ({
    group: knownGroups()[0] ?? '',
    theme: sitting.lessonTitle,
    when: dateAndTime(sitting.openedAt),
  }));
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  // Counted anew as marks of pages that were not in sight arrive.
  const changed = useStore(desk.marksChanged);
  const written = useMemo(() => writtenPages(desk), [desk, changed]); // eslint-disable-line react-hooks/exhaustive-deps
  useEffect(() => void desk.room.readAll(), [desk]);
  const [added] = useState(() => ownPages(desk));
  const [keepsPages, setKeepsPages] = useState(false);
  const marks = written.reduce((sum, { count }) => sum + count, 0);
  const end = async (drop: boolean) => {
    setBusy(true);
    try {
      if (keepsPages) await keepPages(sitting.id, added);
      await endSitting(sitting.id, { title: titleOf(name), drop });
      rememberGroup(name.group);
      onEnded();
    } catch (error) {
      setBusy(false);
      setProblem((error as Error).message);
    }
  };
  return (
    <Modal
      title={t('sittings.endThisClass')}
      description={t('sittings.studentsCanStillLookBut')}
      open
      onOpenChange={onClose}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void end(false);
        }}
      >
        <div className="grid gap-x-3 sm:grid-cols-2">
          <TextField
            label={t('common.class')}
            list="known-groups"
            value={name.group}
            maxLength={60}
            onChange={(event) => setName({ ...name, group: event.target.value })}
          />
          <TextField
            label={t('sittings.dateAndTime')}
            value={name.when}
            maxLength={40}
            onChange={(event) => setName({ ...name, when: event.target.value })}
          />
        </div>
        <datalist id="known-groups">
          {knownGroups().map((group) => (
            <option key={group} value={group} />
          ))}
        </datalist>
        <TextField
          label={t('sittings.titleOrTheme')}
          value={name.theme}
          maxLength={90}
          required
          onChange={(event) => setName({ ...name, theme: event.target.value })}
        />
        {marks === 0 ? (
          <p className="mb-4">{t('sittings.nothingWasWrittenInThis')}</p>
        ) : (
          <>
            <p className="mb-2">
              {t('sittings.marksOn', {
                marks: t('sittings.marks', { count: marks }),
                pages: t('sittings.pages', { count: written.length }),
              })}
            </p>
            <ul
              className="mb-4 flex max-h-52 flex-wrap gap-2 overflow-auto"
              aria-label={t('sittings.whatWasWritten')}
            >
              {written.map(({ page, count }) => (
                <li key={page.id}>
                  <PagePreview desk={desk} page={page} marks={count} />
                </li>
              ))}
            </ul>
          </>
        )}
        {added.length > 0 && (
          <Tick checked={keepsPages} onChange={setKeepsPages}>
            {t('sittings.keepThePagesThatWere', { count: added.length })}
          </Tick>
        )}
        <Problem>{problem}</Problem>
        <div className="flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={busy}>
            {t('sittings.keepAndEnd')}
          </Button>
          <Button look="alarm" disabled={busy} onClick={() => void end(true)}>
            {t('sittings.dropAndEnd')}
          </Button>
          <Button onClick={onClose}>{t('sittings.goOnTeaching')}</Button>
        </div>
        <p className="mt-3 text-sm text-ink-soft">{t('sittings.whatIsDroppedCanBe')}</p>
      </form>
    </Modal>
  );
}

/** The pages that the class has written on, with how many marks. */
function writtenPages(desk: PageDesk) {
  const layer = desk.layers.at(-1)!;
  return desk.pages
    .get()
    .map((page) => ({ page, count: layer.on(page.id).size }))
    .filter(({ count }) => count > 0);
}
