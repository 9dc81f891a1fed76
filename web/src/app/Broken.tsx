import { useEffect } from 'react';
import { useRouteError } from 'react-router';
import { Button } from '../ui/Button';
import { Front } from '../ui/Front';
import { t } from '../words';

/** What stands in place of a page that failed for want of a part of the program, or by a fault of ours. */
export function Broken() {
  const error = useRouteError();
  useEffect(() => console.error(error), [error]);
  return (
    <Front title={t('app.thisPageCouldNotBe')}>
      <p className="mb-4">{t('app.whatWasWrittenIsKept')}</p>
      <Button onClick={() => location.reload()}>{t('app.loadThePageAgain')}</Button>
    </Front>
  );
}
