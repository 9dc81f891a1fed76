import { MAX_TEX } from '@doodla/core';
import { FormulaError } from '@doodla/core/formulas';
import type { MathfieldElement } from 'mathlive';
import { useRef, useState } from 'react';
import type { FormEvent } from 'react';
import type { FormulaEdit } from '../desk/desk';
import { changeFormula, formulaProblem, newFormula } from '../desk/formulas';
import type { PageDesk } from '../room/pageDesk';
import { placeMarks } from '../shelf/placeMarks';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { FormulaField, typed } from './FormulaField';
import type { KeyDeed } from './FormulaKeys';
import { FormulaKeys } from './FormulaKeys';
import { TypedDraft } from './typedDraft';

interface FormulaDialogProps {
  edit: FormulaEdit;
  desk: PageDesk;
  onClose(): void;
}

/** A formula, typed as it is written or as TeX, and put on the page or changed there. */
export default function FormulaDialog({ edit: { mark }, desk, onClose }: FormulaDialogProps) {
  const field = useRef<MathfieldElement>(null);
  const [draft] = useState(() => new TypedDraft('formula', mark?.id));
  const [tex, setTex] = useState(() => draft.get() ?? mark?.tex ?? '');
  const [problem, setProblem] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const say = (next: string) => {
    setProblem(undefined);
    setTex(next);
    draft.keep(next);
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    if (isBusy) return;
    setBusy(true);
    try {
      // What was not taken, as pens are down by now, has been said; it stays to be put there later.
      if (!(await putOnPage(desk, mark, tex.trim()))) return;
      draft.drop();
      onClose();
    } catch (error) {
      setProblem(formulaProblem(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Modal
      title={t(mark ? 'formulas.change' : 'formulas.formula')}
      description={t('formulas.how')}
      open
      wide
      onOpenChange={onClose}
    >
      <form onSubmit={(event) => void keep(event)} className="grid gap-3">
        <div className="sticky top-0 z-10">
          <FormulaField
            ref={field}
            label={t('formulas.field')}
            tex={tex}
            takesFocus
            onType={say}
            onDone={(form) => form.requestSubmit()}
          />
        </div>
        <FormulaKeys onKey={(deed) => field.current && say(press(field.current, deed))} />
        <TextField
          label={t('formulas.tex')}
          value={tex}
          maxLength={MAX_TEX}
          spellCheck={false}
          autoCapitalize="off"
          className="font-mono"
          onChange={({ target }) => say(target.value)}
        />
        {problem && <Problem>{problem}</Problem>}
        <Button type="submit" look="main" disabled={isBusy} className="sticky bottom-0 justify-self-end">
          {t(mark ? 'formulas.keep' : 'formulas.put')}
        </Button>
      </form>
    </Modal>
  );
}

/** Returns whether it is there. */
async function putOnPage(desk: PageDesk, mark: FormulaEdit['mark'], tex: string): Promise<boolean> {
  if (tex === '') throw new FormulaError('empty', '');
  if (mark) return changeFormula(desk, mark, tex);
  const made = await newFormula(desk, tex);
  return made !== undefined && placeMarks(desk, [made], desk.middle());
}

/** Does what a key says, and returns what is typed then. */
function press(field: MathfieldElement, deed: KeyDeed): string {
  field.focus();
  if ('insert' in deed) field.insert(deed.insert, { format: 'latex', focus: true });
  else field.executeCommand(deed.command);
  return typed(field);
}
