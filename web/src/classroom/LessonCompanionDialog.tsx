import type { DeviceReply } from '@doodla/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { AppWindow, X } from 'lucide-react';
import { useState } from 'react';
import { inviteIntoLesson, lessonDevices, removeFromLesson } from '../api/devices';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import type { Invitation } from './Invite';
import { Invite, invited } from './Invite';

/** How often it is looked whether a companion has come, milliseconds. */
const LOOK_MS = 3000;

/** Lets a companion bring pages into a lesson while it is prepared, and out again. */
export default function LessonCompanionDialog({ lesson, onClose }: { lesson: string; onClose(): void }) {
  const queries = useQueryClient();
  const key = ['lesson-devices', lesson];
  const { data: devices } = useQuery({
    queryKey: key,
    queryFn: () => lessonDevices(lesson),
    refetchInterval: LOOK_MS,
  });
  const [invitation, setInvitation] = useState<Invitation>();
  const [problem, setProblem] = useState<string>();
  const act = (what: Promise<void>) => {
    setProblem(undefined);
    what.catch((error: Error) => setProblem(error.message));
  };
  const invite = async () => setInvitation(await invited('companion', inviteIntoLesson(lesson)));
  const remove = async ({ id }: DeviceReply) => {
    await removeFromLesson(lesson, id);
    await queries.invalidateQueries({ queryKey: key });
  };
  return (
    <Modal
      title={t('devices.bringFromBrowser')}
      description={t('devices.bringFromBrowserHow')}
      open
      onOpenChange={onClose}
    >
      <Button className="mb-4" icon={<AppWindow aria-hidden size={20} />} onClick={() => act(invite())}>
        {t('classroom.aCompanion')}
      </Button>
      <Problem>{problem}</Problem>
      {invitation && <Invite {...invitation} />}
      <ul aria-label={t('classroom.connected')} className="flex flex-col gap-1">
        {devices?.map((device, i) => (
          <li key={device.id} className="flex min-h-11 items-center gap-3 rounded-xl bg-paper-dim px-3">
            <AppWindow aria-hidden size={20} />
            <span className="grow">
              {t('classroom.companion')} {i + 1}
            </span>
            <Button icon={<X aria-hidden size={18} />} onClick={() => act(remove(device))}>
              {t('classroom.takeOut')}
            </Button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}
