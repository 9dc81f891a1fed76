import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useStore } from '../store/useStore';
import { sittingQuery } from '../api/lessons';
import { CannotOpen } from '../ui/CannotOpen';
import { TopBar } from './TopBar';
import type { Stage } from '../stage/stage';
import { StageView } from './StageView';
import { IconButton } from '../ui/IconButton';
import { useWorkspace } from '../room/useWorkspace';
import type { PageDesk } from '../room/pageDesk';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { t } from '../words';

/** One page as two classes wrote on it, side by side, to look at. */
export default function ComparePage() {
  const { lesson = '' } = useParams();
  const [params] = useSearchParams();
  const [a, b] = [params.get('a') ?? '', params.get('b') ?? ''];
  const left = useWorkspace({ lesson, sitting: a, looking: true });
  const right = useWorkspace({ lesson, sitting: b, looking: true });
  const names = [useQuery(sittingQuery(a)), useQuery(sittingQuery(b))];
  const failed = names.find(({ isError }) => isError);
  if (failed) return <CannotOpen what="class" reason={failed.error!.message} />;
  if (!left || !right) return null;
  return (
    <div className="fixed inset-0 flex bg-board">
      <Half desk={left.main} title={names[0]!.data?.title ?? ''} />
      <Half desk={right.main} title={names[1]!.data?.title ?? ''} />
      <TopBar
        back={`/lesson/${lesson}`}
        backLabel={t('classroom.backToTheLesson')}
        title={t('classroom.twoClasses')}
        arrangement="bars"
        side="right"
      />
      <Turner left={left.main} right={right.main} />
    </div>
  );
}

function Half({ desk, title }: { desk: PageDesk; title: string }) {
  const [stage, setStage] = useState<Stage>();
  return (
    <section aria-label={title} className="relative grow basis-0 border-x-2 border-board-line">
      <StageView desk={desk} stage={stage} onStage={setStage} />
      <h2 className="absolute bottom-2 left-2 max-w-[70%] truncate rounded-2xl bg-board forced-colors:border-2 px-3 py-1.5 font-bold text-paper">
        {title}
      </h2>
    </section>
  );
}

function Turner({ left, right }: { left: PageDesk; right: PageDesk }) {
  const pages = useStore(left.pages);
  const current = useStore(left.pageId);
  const at = pages.findIndex(({ id }) => id === current);
  const turn = (step: number) => {
    const page = pages[at + step];
    if (!page) return;
    left.turnTo(page.id);
    right.turnTo(page.id);
  };
  return (
    <div
      role="group"
      aria-label={t('common.turnPages')}
      className="absolute right-2 bottom-2 flex items-center rounded-2xl bg-board forced-colors:border-2 p-0.5 text-paper"
    >
      <IconButton
        label={t('common.previousPage')}
        disabled={at <= 0}
        icon={<ChevronLeft aria-hidden />}
        onClick={() => turn(-1)}
      />
      <span className="min-w-12 text-center text-sm font-bold">
        {at + 1} / {pages.length}
      </span>
      <IconButton
        label={t('common.nextPage')}
        disabled={at >= pages.length - 1}
        icon={<ChevronRight aria-hidden />}
        onClick={() => turn(1)}
      />
    </div>
  );
}
