import { Volume2, VolumeX } from 'lucide-react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import type { PlayedVoice } from './voice';

/** Whether the voice is heard. */
export function VoiceSwitch({ sound }: { sound: PlayedVoice }) {
  const isOff = useStore(sound.loudness) === 0;
  return (
    <IconButton
      label={isOff ? t('explain.voiceOn') : t('explain.voiceOff')}
      icon={isOff ? <VolumeX aria-hidden size={22} /> : <Volume2 aria-hidden size={22} />}
      tooltipSide="none"
      onClick={() => sound.loudness.set(isOff ? 1 : 0)}
    />
  );
}
