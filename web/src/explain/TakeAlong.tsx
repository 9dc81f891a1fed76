import type { SharedLinkSummary } from '@doodla/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { linksQuery } from '../api/links';
import type { FilmLines, FilmPlan } from '../film/filmPlan';
import type { MakeOptions } from '../film/makeFilm';
import { makeFilm } from '../film/makeFilm';
import { fileName } from '../handout/fileName';
import { LinkParts, SharedLink } from '../handout/LinkParts';
import type { LinkChoice } from '../handout/shareLink';
import { shareLink, USUAL_LINK } from '../handout/shareLink';
import type { PackPlan } from '../packed/makePack';
import { makePack } from '../packed/makePack';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { ProgressBar } from '../ui/ProgressBar';
import { SaveLink } from '../ui/SaveLink';
import { SelectField } from '../ui/SelectField';
import { Tick } from '../ui/Tick';
import { t } from '../words';

type Form = 'link' | 'page' | 'video720' | 'video1080' | 'sound' | 'text' | 'steps';

interface TakeAlongProps {
  desk: PageDesk;
  /** The explanation, by its id and name. */
  id: string;
  title: string;
  isHeard: boolean;
  hasFace: boolean;
  hasCaptions: boolean;
  hasStops: boolean;
  plan(choice: FilmChoice): Promise<FilmPlan>;
  pack(): Promise<PackPlan>;
  /** Makes a text of it, or a PDF of its steps with the code of a link. */
  text(options: MakeOptions): Promise<Blob>;
  steps(link: string | undefined, options: MakeOptions): Promise<Blob>;
}

interface FilmChoice {
  lines: FilmLines;
  isCaptioned: boolean;
  hasFace: boolean;
}

type Stage =
  | { at: 'ready' }
  | { at: 'making'; share: number }
  | { at: 'made'; url: string; name: string }
  | { at: 'shared'; url: string }
  | { at: 'failed'; why: string };

const cancelled = () => new DOMException('Cancelled', 'AbortError');

/** Makes a link to an explanation, or files of it that play anywhere. */
export function TakeAlong(props: TakeAlongProps) {
  const { desk, id, title, isHeard, hasFace, hasCaptions, hasStops, plan, pack, text, steps } = props;
  const client = useQueryClient();
  const [form, setForm] = useState<Form>('link');
  const [link, setLink] = useState(USUAL_LINK);
  const [isCaptioned, setCaptioned] = useState(false);
  const [withFace, setWithFace] = useState(true);
  const [stage, setStage] = useState<Stage>({ at: 'ready' });
  const [isCoded, setCoded] = useState(true);
  const isVideo = form === 'video720' || form === 'video1080';
  const abort = useRef(new AbortController());
  useEffect(() => () => abort.current.abort(cancelled()), []);
  useEffect(() => () => (stage.at === 'made' ? URL.revokeObjectURL(stage.url) : undefined), [stage]);
  const madeAs = async (options: MakeOptions) => {
    if (form === 'text') return { blob: await text(options), ending: 'html' };
    if (form === 'steps') {
      const coded = isCoded ? await linkFor(options) : undefined;
      return { blob: await steps(coded, options), ending: 'pdf' };
    }
    if (form === 'page') {
      const { playingFile } = await import('../packed/playingFile');
      return { blob: await playingFile(await makePack(desk, await pack(), options)), ending: 'html' };
    }
    const lines = form === 'video1080' ? 1080 : 720;
    const planned = await plan({ lines, isCaptioned, hasFace: hasFace && withFace });
    return makeFilm(desk, form === 'sound' ? 'sound' : 'film', planned, options);
  };
  const share = async (as: LinkChoice, options: MakeOptions): Promise<string> => {
    const shown = await makePack(desk, await pack(), options);
    options.signal.throwIfAborted();
    const { url } = await shareLink(desk, { title, shown, explanation: id, link: as });
    await client.invalidateQueries({ queryKey: linksQuery(desk.room.lesson).queryKey });
    return url;
  };
  /** The last link to it; where there is none one is made. */
  const linkFor = async (options: MakeOptions): Promise<string> => {
    const links = await client.fetchQuery(linksQuery(desk.room.lesson));
    const isOpen = ({ endsAt }: SharedLinkSummary) => endsAt === null || endsAt > Date.now();
    const known = links.find((one) => one.explanation === id && isOpen(one));
    return known?.url ?? share(USUAL_LINK, options);
  };
  const make = async () => {
    abort.current = new AbortController();
    const { signal } = abort.current;
    setStage({ at: 'making', share: 0 });
    try {
      const onProgress = (share: number) => setStage({ at: 'making', share });
      if (form === 'link') {
        setStage({ at: 'shared', url: await share(link, { signal, onProgress }) });
        return;
      }
      const { blob, ending } = await madeAs({ signal, onProgress });
      // Not all that makes something can stop in the middle of it.
      signal.throwIfAborted();
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
                { value: 'link', name: t('explain.asLink') },
                { value: 'page', name: t('explain.asPage') },
                { value: 'video720', name: t('explain.asVideo720') },
                { value: 'video1080', name: t('explain.asVideo1080') },
                ...(isHeard ? ([{ value: 'sound', name: t('explain.asSound') }] as const) : []),
                { value: 'text', name: t('explain.asText') },
                { value: 'steps', name: t('explain.asSteps') },
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
          {hasFace && isVideo && (
            <div className="-mb-4">
              <Tick checked={withFace} onChange={setWithFace}>
                {t('explain.faceInPicture')}
              </Tick>
            </div>
          )}
          {form === 'steps' && (
            <div className="-mb-4">
              <Tick checked={isCoded} onChange={setCoded}>
                {t('explain.withCode')}
              </Tick>
            </div>
          )}
          {form === 'link' && (
            <div className="w-full">
              <p className="mb-4">{t('explain.whoHasLink')}</p>
              <div className="grid grid-cols-[repeat(auto-fit,minmax(min(100%,18rem),1fr))] gap-x-6">
                <LinkParts
                  lesson={desk.room.lesson}
                  link={link}
                  mayBeSaved={t('explain.mayBeSaved')}
                  change={(set) => setLink({ ...link, ...set })}
                />
              </div>
            </div>
          )}
          <Button look="main" onClick={() => void make()}>
            {t(form === 'link' ? 'explain.makeLink' : 'explain.make')}
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
      {stage.at === 'shared' && (
        <>
          <div className="min-w-60 grow">
            <SharedLink url={stage.url} />
          </div>
          <Button onClick={() => setStage({ at: 'ready' })}>{t('explain.makeAnother')}</Button>
        </>
      )}
      <p role="status" className="w-full font-bold empty:hidden">
        {stage.at === 'made' && t('handout.itIsReady')}
        {stage.at === 'shared' && t('handout.linkIsThere')}
      </p>
      {stage.at === 'failed' && (
        <p role="alert" className="w-full font-bold text-alarm">
          {t('explain.couldNotBeMade', { why: stage.why })}
        </p>
      )}
    </section>
  );
}
