import { MathfieldElement } from 'mathlive';
import type { RefObject } from 'react';
import { useEffect, useRef } from 'react';
import { language } from '../words';
import './formulaField.css';

MathfieldElement.fontsDirectory = '/formulas';
MathfieldElement.soundsDirectory = null;
MathfieldElement.locale = language();

/** What is typed in a field, as TeX. */
export const typed = (field: MathfieldElement) => field.getValue('latex-without-placeholders');

interface FormulaFieldProps {
  ref?: RefObject<MathfieldElement | null>;
  /** Its accessible name. */
  label: string;
  tex: string;
  /** Whether what is typed goes there as soon as it is shown. */
  takesFocus?: boolean;
  onType(tex: string): void;
  onDone(form: HTMLFormElement): void;
}

/** The field that formulas are typed in as they look. */
export function FormulaField({ ref, label, tex, takesFocus = false, onType, onDone }: FormulaFieldProps) {
  const host = useRef<HTMLDivElement>(null);
  const inside = useRef<MathfieldElement>(null);
  const told = useRef({ onType, onDone });
  useEffect(() => {
    told.current = { onType, onDone };
  });
  useEffect(() => {
    const field = new MathfieldElement({
      mathVirtualKeyboardPolicy: 'manual',
      popoverPolicy: 'off',
    });
    field.addEventListener('input', () => told.current.onType(typed(field)));
    field.addEventListener('keydown', (event) => {
      if (event.key !== 'Enter') return;
      event.preventDefault();
      const form = host.current?.closest('form');
      if (form) told.current.onDone(form);
    });
    host.current!.append(field);
    // Its own menu would be a second interface; it can be taken away once the field is there.
    field.menuItems = [];
    inside.current = field;
    if (ref) ref.current = field;
    // A sheet that opens puts the focus on its first button.
    const frame = takesFocus ? requestAnimationFrame(() => field.focus()) : undefined;
    return () => {
      if (frame !== undefined) cancelAnimationFrame(frame);
      field.remove();
    };
  }, [ref, takesFocus]);
  useEffect(() => inside.current?.setAttribute('aria-label', label), [label]);
  useEffect(() => {
    const field = inside.current;
    if (field && typed(field) !== tex) field.setValue(tex, { silenceNotifications: true });
  }, [tex]);
  return (
    <div
      ref={host}
      className="min-h-14 rounded-xl border-2 border-paper-line bg-white text-ink focus-within:border-board"
    />
  );
}
