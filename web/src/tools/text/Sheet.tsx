import { useStore } from '../../store/useStore';
import { Switch } from '../../ui/Switch';
import { TextSheet } from '../../ui/TextSheet';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What can be chosen for typed text. */
export default function TextToolSheet({ desk: { penCase } }: { desk: Pick<ToolDesk, 'penCase'> }) {
  const { text, screenKeyboard } = useStore(penCase);
  return (
    <>
      <TextSheet style={text} onChange={(part) => penCase.patch({ text: { ...text, ...part } })} />
      <Switch
        label={t('tools.keyboardOnTheScreen')}
        checked={screenKeyboard}
        onChange={(on) => penCase.patch({ screenKeyboard: on })}
      />
    </>
  );
}
