import { useEffect, useEffectEvent, useRef, useState } from 'react';
import Keyboard from 'react-simple-keyboard';
import 'react-simple-keyboard/build/css/index.css';
import { t } from '../words';

const LAYOUT = {
  default: [
    '1 2 3 4 5 6 7 8 9 0 {bksp}',
    'q w e r t y u i o p',
    'a s d f g h j k l {enter}',
    '{shift} z x c v b n m , . ?',
    '{signs} {space} {done}',
  ],
  shift: [
    '! " # $ % & / ( ) = {bksp}',
    'Q W E R T Y U I O P',
    'A S D F G H J K L {enter}',
    '{shift} Z X C V B N M ; : !',
    '{signs} {space} {done}',
  ],
  signs: [
    '+ − × ÷ = ≠ < > ≤ ≥ {bksp}',
    '° ² ³ √ π ½ ¼ ¾ % ‰',
    'ä ö ü ß é è à ç ñ {enter}',
    '{shift} á í ó ú å ø æ € £ @',
    '{signs} {space} {done}',
  ],
};
const NAMES = {
  '{bksp}': t('typing.deleteKey'),
  '{enter}': t('typing.newLineKey'),
  '{shift}': t('typing.capitalsKey'),
  '{signs}': t('typing.signs'),
  '{space}': t('typing.spaceKey'),
  '{done}': t('typing.done'),
};

interface ScreenKeyboardProps {
  onType(text: string): void;
  onDelete(): void;
  onDone(): void;
  /** Told where its upper edge is in the window, CSS pixels, once the page has made room for it. */
  onPlaced(top: number): void;
}

/** Keys on the glass, for displays without a keyboard. */
export default function ScreenKeyboard({ onType, onDelete, onDone, onPlaced }: ScreenKeyboardProps) {
  const host = useRef<HTMLDivElement>(null);
  const placed = useEffectEvent(onPlaced);
  useEffect(() => {
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => placed(host.current!.getBoundingClientRect().top));
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  const [layout, setLayout] = useState<keyof typeof LAYOUT>('default');
  const press = (key: string) => {
    if (key === '{bksp}') onDelete();
    else if (key === '{enter}') onType('\n');
    else if (key === '{space}') onType(' ');
    else if (key === '{done}') onDone();
    else if (key === '{shift}') setLayout(layout === 'shift' ? 'default' : 'shift');
    else if (key === '{signs}') setLayout(layout === 'signs' ? 'default' : 'signs');
    else {
      onType(key);
      if (layout === 'shift') setLayout('default');
    }
  };
  return (
    <div
      ref={host}
      role="group"
      aria-label={t('typing.keyboard')}
      data-bar="keys"
      // The text box must keep the cursor.
      onPointerDown={(event) => event.preventDefault()}
      className="screen-keyboard pointer-events-auto absolute bottom-20 left-1/2 z-30 w-[min(96%,60rem)] -translate-x-1/2 text-ink"
    >
      <Keyboard
        layout={LAYOUT}
        layoutName={layout}
        display={NAMES}
        mergeDisplay
        onKeyPress={press}
        preventMouseDownDefault
        useButtonTag
      />
    </div>
  );
}
