import { LogOut } from 'lucide-react';
import { signOut } from '../api/people';
import { Button } from '../ui/Button';
import { t } from '../words';
import { useRefreshMe } from './useRefreshMe';

/** Signs out, and shows what is there for nobody. */
export function SignOutButton() {
  const refreshMe = useRefreshMe();
  return (
    <Button
      look="onBoard"
      icon={<LogOut aria-hidden size={18} />}
      onClick={() => void signOut().then(refreshMe)}
    >
      {t('lessons.signOut')}
    </Button>
  );
}
