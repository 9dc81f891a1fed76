import type { StudentTrace } from '@doodla/core';
import { Download, Search, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { dataOf, forgetStudent, tracesOf } from '../api/privacy';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { dayOf } from '../words/dates';

/** What is kept about one student: looked up by name, saved as a file, deleted. */
export default function StudentDataDialog({ onClose }: { onClose(): void }) {
  const [name, setName] = useState('');
  const [found, setFound] = useState<{ name: string; traces: readonly StudentTrace[] }>();
  const [isSure, setSure] = useState(false);
  const [problem, setProblem] = useState<string>();

  const attempt = (task: () => Promise<void>) => {
    setProblem(undefined);
    task().catch((error: Error) => setProblem(error.message));
  };
  const look = () =>
    attempt(async () => {
      setSure(false);
      setFound({ name, traces: await tracesOf(name) });
    });
  const save = (whose: string) =>
    attempt(async () => {
      const text = JSON.stringify(await dataOf(whose), undefined, 2);
      saveFile(new Blob([text], { type: 'application/json' }), fileName(whose, 'json'));
    });
  const forget = (whose: string) =>
    attempt(async () => {
      const { classes } = await forgetStudent(whose);
      toast(t('lessons.wasForgotten', { name: whose, count: classes }));
      setFound(undefined);
      setName('');
      setSure(false);
    });

  return (
    <Modal
      title={t('lessons.studentData')}
      description={t('lessons.studentDataHint')}
      open
      onOpenChange={onClose}
    >
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          look();
        }}
      >
        <div className="grow">
          <TextField
            label={t('lessons.studentName')}
            value={name}
            maxLength={40}
            autoComplete="off"
            onChange={(event) => setName(event.target.value)}
          />
        </div>
        <div className="mb-4">
          <Button type="submit" disabled={name.trim() === ''} icon={<Search aria-hidden size={18} />}>
            {t('lessons.lookUp')}
          </Button>
        </div>
      </form>
      <Problem>{problem}</Problem>
      <div role="status">
        {found && found.traces.length === 0 && <p>{t('lessons.nothingKept', { name: found.name })}</p>}
        {found && found.traces.length > 0 && <Traces traces={found.traces} />}
      </div>
      {found && found.traces.length > 0 && (
        <div className="flex flex-wrap gap-3">
          <Button icon={<Download aria-hidden size={18} />} onClick={() => save(found.name)}>
            {t('lessons.saveAll')}
          </Button>
          {isSure ? (
            <Button look="main" onClick={() => forget(found.name)}>
              {t('lessons.yesDelete', { name: found.name })}
            </Button>
          ) : (
            <Button icon={<Trash2 aria-hidden size={18} />} onClick={() => setSure(true)}>
              {t('lessons.deleteAll')}
            </Button>
          )}
          {isSure && <p className="w-full text-ink-soft">{t('lessons.cannotComeBack')}</p>}
        </div>
      )}
    </Modal>
  );
}

function Traces({ traces }: { traces: readonly StudentTrace[] }) {
  return (
    <ul className="mb-4 max-h-[40dvh] overflow-auto rounded-xl bg-paper-dim p-3">
      {traces.map(({ sitting, title, openedAt, marks, words }) => (
        <li key={sitting} className="py-1">
          <span className="font-bold">{title}</span>, {dayOf(openedAt)}:{' '}
          {t('lessons.marksKept', { count: marks })}, {t('lessons.sayingsKept', { count: words })}
        </li>
      ))}
    </ul>
  );
}
