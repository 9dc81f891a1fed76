import { useEffect } from 'react';
import { isTyping } from './isTyping';
import type { Player } from './player';
import { SPEEDS } from './player';

/** Plays by keys: space plays and stops, arrows go step by step, + and − change how fast. */
export function usePlayKeys(player: Player): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => pressed(event, player);
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, [player]);
}

/** A list that is open has its keys for itself. */
function pressed(event: KeyboardEvent, player: Player): void {
  const { target, key } = event;
  if (isTyping(target) || event.ctrlKey || event.altKey || event.metaKey) return;
  if (key === ' ' && !(target instanceof HTMLButtonElement)) player.toggle();
  else if (key === 'ArrowRight') player.next();
  else if (key === 'ArrowLeft') player.previous();
  else if (key === '+') changeSpeed(player, 1);
  else if (key === '-') changeSpeed(player, -1);
  else return;
  event.preventDefault();
}

function changeSpeed({ speed }: Player, by: 1 | -1): void {
  speed.set(SPEEDS[SPEEDS.indexOf(speed.get()) + by] ?? speed.get());
}
