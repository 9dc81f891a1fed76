import { Camera, MonitorUp, MonitorPlay, ScreenShare, Video } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import type { Room } from '../room/room';
import type { SourceKind } from '../screen/openSource';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';

/** What can be shown live. */
export function ShowMenu({ room }: { room: Room }) {
  const presenter = useStore(room.sharing.presenter);
  const show = (kind: SourceKind) => () => {
    void import('../screen/openSource')
      .then(({ openSource }) => openSource(kind))
      .then(
        (source) => source && room.sharing.present(source, kind),
        (error: Error) => room.tellProblem(error.message),
      );
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button
          look="onBoard"
          icon={<ScreenShare aria-hidden size={18} />}
          disabled={presenter !== undefined}
        >
          Show
        </Button>
      </DropdownMenu.Trigger>
      <MenuContent align="end">
        <DropdownMenu.Item className={MENU_ITEM} onSelect={show('screen')}>
          <MonitorUp aria-hidden size={18} /> A screen, window or tab
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={show('camera')}>
          <Camera aria-hidden size={18} /> The camera
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={show('practiceScreen')}>
          <MonitorPlay aria-hidden size={18} /> A screen to practise with
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={show('practiceCamera')}>
          <Video aria-hidden size={18} /> A camera to practise with
        </DropdownMenu.Item>
      </MenuContent>
    </DropdownMenu.Root>
  );
}
