import type { Explanation } from '@doodla/core';
import { PlayedDialog, Reading } from '../replay/PlayedDialog';
import type { PageDesk } from '../room/pageDesk';
import { ExplanationView } from './ExplanationView';
import { useMaterial } from './useMaterial';

interface ExplanationDialogProps {
  desk: PageDesk;
  explanation: Explanation;
  onClose(): void;
  /** Closes this and what it was opened from, since the page is wanted. */
  onLeave(): void;
}

/** An explanation, played over the whole window. */
export function ExplanationDialog(props: ExplanationDialogProps) {
  return (
    <PlayedDialog onClose={props.onClose}>
      <Reader {...props} />
    </PlayedDialog>
  );
}

function Reader({ desk, explanation, onClose, onLeave }: ExplanationDialogProps) {
  const { material, renew, ...reading } = useMaterial(desk.room, explanation);
  if (!material) return <Reading {...reading} />;
  return (
    <ExplanationView
      key={material.explanation.takes.length}
      desk={desk}
      material={material}
      onRenew={renew}
      onClose={onClose}
      onLeave={onLeave}
    />
  );
}
