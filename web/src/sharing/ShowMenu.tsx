import { Camera, MonitorPlay, MonitorUp, ScreenShare, Video } from 'lucide-react';
import type { Room } from '../room/room';
import type { SourceKind } from '../screen/openSource';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import type { Entry } from '../ui/entries';
import { EntryMenu } from '../ui/EntryMenu';
import { t } from '../words';

interface InRoom {
  room: Room;
}

const showing = (kind: SourceKind) => ({
  id: kind,
  run: ({ room }: InRoom) =>
    void import('../screen/openSource')
      .then(({ openSource }) => openSource(kind))
      .then(
        (source) => source && room.sharing.present(source, kind),
        (error: Error) => room.tellProblem(error.message),
      ),
});

const ENTRIES: readonly Entry<InRoom>[] = [
  { ...showing('screen'), label: t('sharing.aScreenWindowOrTab'), icon: <MonitorUp aria-hidden size={18} /> },
  { ...showing('camera'), label: t('sharing.theCamera'), icon: <Camera aria-hidden size={18} /> },
  {
    ...showing('practiceScreen'),
    label: t('sharing.aScreenToPractiseWith'),
    icon: <MonitorPlay aria-hidden size={18} />,
  },
  {
    ...showing('practiceCamera'),
    label: t('sharing.aCameraToPractiseWith'),
    icon: <Video aria-hidden size={18} />,
  },
];

/** What can be shown live. */
export function ShowMenu({ room }: InRoom) {
  const presenter = useStore(room.sharing.presenter);
  return (
    <EntryMenu
      entries={ENTRIES}
      props={{ room }}
      align="end"
      trigger={
        <Button
          look="onBoard"
          icon={<ScreenShare aria-hidden size={18} />}
          disabled={presenter !== undefined}
        >
          {t('sharing.show')}
        </Button>
      }
    />
  );
}
