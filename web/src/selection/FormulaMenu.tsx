import type { MarkOf } from '@doodla/core';
import { Sigma } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { toast } from 'sonner';
import type { PageDesk } from '../room/pageDesk';
import { copyText } from '../secure/clipboard';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { language, t } from '../words';

type Formula = MarkOf<'formula'>;
type Formulas = typeof import('../desk/formulas');
type Working = Parameters<typeof import('../desk/workOut').workOutBelow>[2];

/** What can be done with one formula. */
export function FormulaMenu({ mark, desk }: { mark: Formula; desk: PageDesk }) {
  const entry = (name: string, deed: () => void) => (
    <DropdownMenu.Item className={MENU_ITEM} onSelect={deed}>
      {name}
    </DropdownMenu.Item>
  );
  const work = (working: Working) => () =>
    void withFormulas(desk, async () => {
      const { workOutBelow } = await import('../desk/workOut');
      await workOutBelow(desk, mark, working);
    });
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('formulas.forThis')} icon={<Sigma aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        {entry(t('formulas.change'), () => desk.formulaEdit.set({ mark }))}
        {entry(t('formulas.workOut'), work('result'))}
        {entry(t('formulas.workOutSteps'), work('steps'))}
        {desk.isTeacher && entry(t('formulas.workOutCovered'), work('covered'))}
        {entry(t('plots.toGraph'), () => desk.plotEdit.set({ is: 'plot', formula: mark }))}
        {entry(t('plots.table'), () => desk.plotEdit.set({ is: 'table', formula: mark }))}
        {entry(t('formulas.copyTex'), () => void copy(desk, mark.tex))}
        {entry(
          t('formulas.copyMathMl'),
          () => void withFormulas(desk, ({ mathMlOf }) => copy(desk, mathMlOf(mark.tex))),
        )}
        {entry(t('formulas.readAloud'), () => readAloud(desk, mark))}
      </MenuContent>
    </DropdownMenu.Root>
  );
}

/** Fetches what knows of formulas and does something with it; what goes wrong is said. */
async function withFormulas(desk: PageDesk, deed: (formulas: Formulas) => Promise<void>): Promise<void> {
  const formulas = await import('../desk/formulas').catch(() => undefined); // Told in the next line.
  if (!formulas) return desk.tellProblem(t('formulas.notReached'));
  await deed(formulas).catch((error: unknown) => desk.tellProblem(formulas.formulaProblem(error)));
}

async function copy(desk: PageDesk, text: string): Promise<void> {
  try {
    await copyText(text);
    toast(t('formulas.copied'));
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}

function readAloud(desk: PageDesk, { alt, tex }: Formula): void {
  if (!('speechSynthesis' in window)) return desk.tellProblem(t('formulas.cannotSpeak'));
  const words = new SpeechSynthesisUtterance(alt ?? tex);
  words.lang = language();
  speechSynthesis.cancel();
  speechSynthesis.speak(words);
}
