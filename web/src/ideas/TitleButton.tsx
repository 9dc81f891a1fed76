import type { MarkOf } from '@doodla/core';
import { t } from '../words';
import { placeOf } from './boxOf';

interface TitleButtonProps {
  title: MarkOf<'text'>;
  scale: number;
  onOpen(): void;
}

/** The title of a group of notes, to be changed. */
export function TitleButton({ title, scale, onOpen }: TitleButtonProps) {
  return (
    <button
      type="button"
      aria-label={t('ideas.renameGroup', { name: title.text })}
      onClick={onOpen}
      className="pointer-events-auto absolute rounded-sm"
      style={placeOf(title, scale)}
    />
  );
}
