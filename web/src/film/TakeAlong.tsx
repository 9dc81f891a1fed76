import { useEffect, useRef, useState } from 'react';
import { fileName } from '../handout/fileName';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { ProgressBar } from '../ui/ProgressBar';
import { SaveLink } from '../ui/SaveLink';
import { SelectField } from '../ui/SelectField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { FilmLines, FilmPlan } from './filmPlan';
import type { MakeOptions } from './makeFilm';
import { makeFilm } from './makeFilm';

type Form = 'video720' | 'video1080' | 'sound' | 'text';

interface TakeAlongProps {
  desk: PageDesk;
  title: string;
  isHeard: boolean;
  hasCaptions: boolean;
  hasStops: boolean;
  plan(lines: FilmLines, isCaptioned: boolean): Promise<FilmPlan>;
  /** Makes a text of it. */
  text(options: MakeOptions): Promise<Blob>;
}

type Stage =
  | { at: 'ready' }
  | { at: 'making'; share: number }
  | { at: 'made'; url: string; name: string }
  | { at: 'failed'; why: string };

const cancelled = () => new DOMException('Cancelled', 'AbortError');

/** Makes files of an explanation that play anywhere. */
export function TakeAlong({ desk, title, isHeard, hasCaptions, hasStops, plan, text }: TakeAlongProps) {
  const [form, setForm] = useState<Form>('video720');
  const [isCaptioned, setCaptioned] = useState(false);
  const [stage, setStage] = useState<Stage>({ at: 'ready' });
  const isVideo = form === 'video720' || form === 'video1080';
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(cancelled()), []);
  useEffect(() => () => (stage.at === 'made' ? URL.revokeObjectURL(stage.url) : undefined), [stage]);
  const madeAs = async (options: MakeOptions) => {
    if (form === 'text') return { blob: await text(options), ending: 'html' };
    const planned = await plan(form === 'video1080' ? 1080 : 720, isCaptioned);
    return makeFilm(desk, form === 'sound' ? 'sound' : 'film', planned, options);
  };
  const make = async () => {
    abort.current = new AbortController();
    const { signal } = abort.current;
    setStage({ at: 'making', share: 0 });
    try {
      const onProgress = (share: number) => setStage({ at: 'making', share });
      const { blob, ending } = await madeAs({ signal, onProgress });
      setStage({ at: 'made', url: URL.createObjectURL(blob), name: fileName(title, ending) });
    } catch (error) {
      if (signal.aborted) setStage({ at: 'ready' });
      else setStage({ at: 'failed', why: (error as Error).message });
    }
  };
  return (
    <section
      aria-label={t('explain.takeAlong')}
      className="flex flex-wrap items-end gap-x-6 gap-y-2 rounded-2xl bg-paper p-4 text-ink"
    >
      {(stage.at === 'ready' || stage.at === 'failed') && (
        <>
          <div className="-mb-4 min-w-60">
            <SelectField<Form>
              label={t('explain.takeAs')}
              value={form}
              options={[
                { value: 'video720', name: t('explain.asVideo720') },
                { value: 'video1080', name: t('explain.asVideo1080') },
                ...(isHeard ? ([{ value: 'sound', name: t('explain.asSound') }] as const) : []),
                { value: 'text', name: t('explain.asText') },
              ]}
              onChange={setForm}
            />
          </div>
          {hasCaptions && isVideo && (
            <div className="-mb-4">
              <Tick checked={isCaptioned} onChange={setCaptioned}>
                {t('explain.captionsInPicture')}
              </Tick>
            </div>
          )}
          <Button look="main" onClick={() => void make()}>
            {t('explain.make')}
          </Button>
          {hasStops && isVideo && <p className="w-full text-sm text-ink-soft">{t('explain.filmStands')}</p>}
        </>
      )}
      {stage.at === 'making' && (
        <>
          <div className="min-w-60 grow">
            <ProgressBar label={t('explain.isMaking')} part={stage.share} />
          </div>
          <Button onClick={() => abort.current.abort(cancelled())}>{t('common.cancel')}</Button>
        </>
      )}
      {stage.at === 'made' && (
        <>
          <SaveLink url={stage.url} name={stage.name} />
          <Button onClick={() => setStage({ at: 'ready' })}>{t('explain.makeAnother')}</Button>
        </>
      )}
      <p role="status" className="w-full font-bold empty:hidden">
        {stage.at === 'made' && t('handout.itIsReady')}
      </p>
      {stage.at === 'failed' && (
        <p role="alert" className="w-full font-bold text-alarm">
          {t('explain.couldNotBeMade', { why: stage.why })}
        </p>
      )}
    </section>
  );
}
