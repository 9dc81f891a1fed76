import type { FormEvent } from 'react';
import { useEffect, useState } from 'react';
import type { TypedDraft } from '../typing/typedDraft';

/** Draws a form. Throws what is said of an error. */
type Draw<Form, Made> = (form: Form) => Promise<Made>;
type Say = (error: unknown) => string;

/** What a form looks like; while what is typed cannot be drawn, what could be before, and why. Another object is another form. */
export function useDrawing<Form, Made>(form: Form, draw: Draw<Form, Made>, problemOf: Say) {
  const [drawn, setDrawn] = useState<{ made?: Made; problem?: string | undefined }>({});
  useEffect(() => {
    let isOld = false;
    draw(form).then(
      (made) => {
        if (!isOld) setDrawn({ made });
      },
      (error: unknown) => {
        if (!isOld) setDrawn((before) => ({ ...before, problem: problemOf(error) }));
      },
    );
    return () => {
      isOld = true;
    };
  }, [form, draw, problemOf]);
  return { made: drawn.made, problem: drawn.problem };
}

interface Keeping<Form, Made> {
  form: Form;
  draft: TypedDraft;
  draw: Draw<Form, Made>;
  problemOf: Say;
  /** Returns whether it is on the page. */
  put(made: Made): boolean;
  onClose(): void;
}

/** Puts what a form says on the page and closes it; what is in the way is said as long as nothing was changed since. */
export function useKeeping<Form, Made>({ form, draft, draw, problemOf, put, onClose }: Keeping<Form, Made>) {
  const [refused, setRefused] = useState<{ form: Form; problem: string }>();
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    try {
      // What was not taken, as pens are down by now, has been said; it stays to be put there later.
      if (!put(await draw(form))) return;
      draft.drop();
      onClose();
    } catch (error) {
      setRefused({ form, problem: problemOf(error) });
    }
  };
  return {
    refused: refused?.form === form ? refused.problem : undefined,
    keep: (event: FormEvent) => void keep(event),
  };
}
