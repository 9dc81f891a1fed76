import { ArrowLeft, ArrowRight, Delete } from 'lucide-react';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { Choice } from '../ui/Choice';
import { t } from '../words';

/** What a key does: puts TeX in, where `#@` is what stands before the cursor and `#?` a place to fill in, or a command. */
export type KeyDeed =
  { insert: string } | { command: 'deleteBackward' | 'moveToPreviousChar' | 'moveToNextChar' };

interface Key {
  face: ReactNode;
  /** Where its face does not say it. */
  name?: string;
  insert: string;
}

const plain = (signs: string): Key[] => signs.split(' ').map((sign) => ({ face: sign, insert: sign }));
const tex = (pairs: Readonly<Record<string, string>>): Key[] =>
  Object.entries(pairs).map(([face, insert]) => ({ face, insert }));

const KEYS = {
  numbers: [
    ...plain('1 2 3 4 5 6 7 8 9 0'),
    { face: 'a⁄b', name: t('formulas.fraction'), insert: '\\frac{#@}{#?}' },
    { face: 'xⁿ', name: t('formulas.power'), insert: '#@^{#?}' },
    { face: 'xₙ', name: t('formulas.index'), insert: '#@_{#?}' },
    { face: '√', name: t('formulas.root'), insert: '\\sqrt{#0}' },
    { face: 'ⁿ√', name: t('formulas.anyRoot'), insert: '\\sqrt[#?]{#0}' },
    { face: '( )', name: t('formulas.brackets'), insert: '\\left(#0\\right)' },
    { face: '|x|', name: t('formulas.absolute'), insert: '\\left|#0\\right|' },
    ...tex({ '+': '+', '−': '-', '·': '\\cdot ', ':': ':', '=': '=', '≠': '\\ne ', '<': '<', '>': '>', '≤': '\\le ', '≥': '\\ge ', '≈': '\\approx ', '±': '\\pm ', ',': '{,}', '.': '.', '%': '\\%', '°': '^{\\circ}', π: '\\pi ' }), // prettier-ignore
  ],
  letters: plain('a b c d e f g h i j k l m n o p q r s t u v w x y z A B C D E F P Q R S'),
  greek: tex({ α: '\\alpha ', β: '\\beta ', γ: '\\gamma ', δ: '\\delta ', ε: '\\varepsilon ', θ: '\\theta ', λ: '\\lambda ', μ: '\\mu ', π: '\\pi ', ρ: '\\rho ', σ: '\\sigma ', τ: '\\tau ', φ: '\\varphi ', ω: '\\omega ', Δ: '\\Delta ', Σ: '\\Sigma ', Φ: '\\Phi ', Ω: '\\Omega ' }), // prettier-ignore
  functions: [
    ...tex({ sin: '\\sin ', cos: '\\cos ', tan: '\\tan ', ln: '\\ln ', log: '\\log_{#?}' }),
    { face: '∑', name: t('formulas.sum'), insert: '\\sum_{#?}^{#?}' },
    { face: '∫', name: t('formulas.integral'), insert: '\\int_{#?}^{#?}' },
    { face: 'lim', name: t('formulas.limit'), insert: '\\lim_{#?\\to #?}' },
    { face: 'a⃗', name: t('formulas.vector'), insert: '\\vec{#@}' },
    ...tex({ '!': '!', '∞': '\\infty ', '→': '\\to ', '⇒': '\\Rightarrow ', '⇔': '\\Leftrightarrow ', '∈': '\\in ', '∥': '\\parallel ', '⊥': '\\perp ', '∠': '\\angle ' }), // prettier-ignore
  ],
} satisfies Record<string, Key[]>;
type Group = keyof typeof KEYS;

const GROUPS: readonly { value: Group; name: string; face: string }[] = [
  { value: 'numbers', name: t('formulas.numbers'), face: '1 + 2' },
  { value: 'letters', name: t('formulas.letters'), face: 'a b c' },
  { value: 'greek', name: t('formulas.greek'), face: 'α β γ' },
  { value: 'functions', name: t('formulas.functions'), face: 'sin ∑' },
];

const KEY =
  'grid h-11 min-w-11 place-items-center rounded-xl border-2 border-paper-line px-2 text-lg hover:bg-paper-dim';

/** Keys for what no keyboard has, and for displays and hand-held screens without one. */
export function FormulaKeys({ onKey }: { onKey(deed: KeyDeed): void }) {
  const [group, setGroup] = useState<Group>('numbers');
  const keys: readonly Key[] = KEYS[group];
  return (
    // The field must keep the cursor.
    <div
      role="group"
      aria-label={t('formulas.keys')}
      onPointerDown={(event) => event.preventDefault()}
      className="grid gap-2"
    >
      <div className="rounded-xl bg-board p-1 text-paper">
        <Choice<Group> label={t('formulas.keys')} value={group} options={GROUPS} onChange={setGroup} />
      </div>
      <div className="flex min-h-36 flex-wrap content-start gap-1 max-sm:min-h-0">
        {keys.map(({ face, name, insert }) => (
          <button
            key={insert}
            type="button"
            className={KEY}
            {...(name !== undefined && { title: name, 'aria-label': name })}
            onClick={() => onKey({ insert })}
          >
            {face}
          </button>
        ))}
        <CommandKey
          label={t('formulas.stepLeft')}
          icon={<ArrowLeft aria-hidden size={20} />}
          onPress={() => onKey({ command: 'moveToPreviousChar' })}
        />
        <CommandKey
          label={t('formulas.stepRight')}
          icon={<ArrowRight aria-hidden size={20} />}
          onPress={() => onKey({ command: 'moveToNextChar' })}
        />
        <CommandKey
          label={t('formulas.delete')}
          icon={<Delete aria-hidden size={20} />}
          onPress={() => onKey({ command: 'deleteBackward' })}
        />
      </div>
    </div>
  );
}

function CommandKey({ label, icon, onPress }: { label: string; icon: ReactNode; onPress(): void }) {
  return (
    <button type="button" className={KEY} title={label} aria-label={label} onClick={onPress}>
      {icon}
    </button>
  );
}
