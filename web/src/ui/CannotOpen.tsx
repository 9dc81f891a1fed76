import { Link } from 'react-router';
import { Front } from './Front';
import { t } from '../words';

/** Shown instead of a lesson or class that is not there, with the way back. */
export function CannotOpen({ what, reason }: { what: 'lesson' | 'class'; reason: string }) {
  return (
    <Front title={t(what === 'lesson' ? 'ui.lessonCannotBeOpened' : 'ui.classCannotBeOpened')}>
      <p className="mb-4">{reason}</p>
      <Link to="/" className="font-bold underline">
        {t('ui.goToYourLessons')}
      </Link>
    </Front>
  );
}
