import { Link } from 'react-router';
import { Front } from '../ui/Front';
import { t } from '../words';

export function Lost() {
  return (
    <Front title={t('app.thereIsNoPageAt')}>
      <Link to="/" className="font-bold underline">
        {t('app.goToTheStartPage')}
      </Link>
    </Front>
  );
}
