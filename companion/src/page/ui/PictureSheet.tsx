import type { Tab } from '../tab';
import { say } from '../../words';
import { BoardButton } from './BoardButton';
import { Camera } from 'lucide-react';

/** Takes pictures of the page. */
export function PictureSheet({ tab, onDone }: { tab: Tab; onDone(): void }) {
  void tab;
  return <BoardButton label={say('pictureSight')} icon={<Camera aria-hidden />} onClick={onDone} />;
}
