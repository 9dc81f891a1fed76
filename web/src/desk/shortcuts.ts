import { Store } from '@doodla/core/client';
import { request } from '../api/http';
import type { ToolId } from '../tools/tools';
import { TOOL_IDS, toolOf } from '../tools/tools';
import { t } from '../words';

interface KeyAction {
  name: string;
  key: string;
}

const KEYS_OF_TOOLS = Object.fromEntries(
  TOOL_IDS.map((id): [ToolId, KeyAction] => {
    const { name, does = name, key } = toolOf(id);
    return [id, { name: does, key }];
  }),
) as Record<ToolId, KeyAction>;

/** Everything that a key can do, with the key it has until a teacher changes it. */
export const ACTIONS = {
  toggleMode: { name: t('desk.useThePageOrWrite'), key: 'W' },
  ...KEYS_OF_TOOLS,
  spotlight: { name: t('common.spotlight'), key: 'A' },
  cover: { name: t('desk.coverThePage'), key: 'B' },
  magnifier: { name: t('common.magnifier'), key: 'O' },
  countdown: { name: t('desk.threeMinutes'), key: 'R' },
  twoPages: { name: t('desk.twoPagesSideBySide'), key: '8' },
  present: { name: t('common.presentNothingButThePage'), key: 'U' },
  hideTools: { name: t('desk.hideTheToolsOrBring'), key: 'Y' },
  ready1: { name: t('desk.firstReadyPen'), key: '2' },
  ready2: { name: t('desk.secondReadyPen'), key: '3' },
  ready3: { name: t('desk.thirdReadyPen'), key: '4' },
  ready4: { name: t('desk.fourthReadyPen'), key: '5' },
  undo: { name: t('common.undo'), key: 'Ctrl+Z' },
  redo: { name: t('common.redo'), key: 'Ctrl+Y' },
  nextMark: { name: t('desk.selectTheNextThing'), key: '.' },
  previousMark: { name: t('desk.selectTheOneBefore'), key: ',' },
  selectAll: { name: t('common.selectEverything'), key: 'Ctrl+A' },
  copy: { name: t('desk.copyWhatIsSelected'), key: 'Ctrl+C' },
  cut: { name: t('desk.cutWhatIsSelected'), key: 'Ctrl+X' },
  duplicate: { name: t('desk.duplicateWhatIsSelected'), key: 'Ctrl+D' },
  group: { name: t('common.group'), key: 'Ctrl+G' },
  ungroup: { name: t('common.ungroup'), key: 'Ctrl+Shift+G' },
  toFront: { name: t('common.toTheFront'), key: ']' },
  toBack: { name: t('common.toTheBack'), key: '[' },
  nextPage: { name: t('common.nextPage'), key: 'PageDown' },
  previousPage: { name: t('common.previousPage'), key: 'PageUp' },
  larger: { name: t('common.larger'), key: '+' },
  smaller: { name: t('common.smaller'), key: '-' },
  fitPage: { name: t('common.fitThePage'), key: '0' },
  fitWidth: { name: t('common.fitTheWidth'), key: '1' },
  swapSide: { name: t('desk.toolsToTheOtherSide'), key: 'X' },
  fold: { name: t('common.foldTheToolsAway'), key: 'F' },
  listMarks: { name: t('common.listOfWhatIsOn'), key: 'K' },
  grab: { name: t('desk.grabAPictureOfWhat'), key: 'G' },
  keyPointer: { name: t('desk.pointAndWriteWithThe'), key: 'J' },
  help: { name: t('desk.theseKeys'), key: '?' },
};

export type ActionId = keyof typeof ACTIONS;
export const ACTION_IDS = Object.keys(ACTIONS) as ActionId[];

/** Keys that always do the same and cannot be given to something else. */
const FIXED = new Set([
  'Escape',
  '!',
  'Tab',
  'Enter',
  'Delete',
  'Backspace',
  'Space',
  'ArrowLeft',
  'ArrowRight',
  'ArrowUp',
  'ArrowDown',
  'Ctrl+V',
]);

const PREFERENCE = '/api/preferences/shortcuts';
const STORE_KEY = 'doodla.shortcuts';

/** The keys that were changed, and whether keys of one letter or sign do nothing. */
type Keys = Partial<Record<ActionId, string>> & { singlesOff?: boolean };

/** Whether a key is one letter, number or sign alone, which speech input may type by mistake (WCAG 2.2, 2.1.4). */
const isSingle = (key: string) => key.length === 1;

/** The keys as this person has set them: a teacher's on the server, a student's in the browser. */
export class Shortcuts extends Store<Keys> {
  /** `owner` keeps apart what different people set on one computer. */
  constructor(private readonly owner: string) {
    super(load(owner));
    this.subscribe(() => localStorage.setItem(`${STORE_KEY}.${this.owner}`, JSON.stringify(this.get())));
    // Where the server does not answer, the keys of the last time on this computer hold.
    if (owner === 'teacher')
      void request<{ value: Keys }>('GET', PREFERENCE).then(
        ({ value }) => this.set(value),
        () => undefined,
      );
  }

  /** The key that is set for an action, whether it does anything now or not. */
  setKeyOf(action: ActionId): string {
    return this.get()[action] ?? ACTIONS[action].key;
  }

  /** The key that does something now; empty where there is none. */
  keyOf(action: ActionId): string {
    const key = this.setKeyOf(action);
    return this.singlesOff && isSingle(key) ? '' : key;
  }

  /** What a key does now. */
  actionOf(key: string): ActionId | undefined {
    return this.singlesOff && isSingle(key) ? undefined : this.actionWith(key);
  }

  /** Whether keys of one letter or sign do nothing. */
  get singlesOff(): boolean {
    return this.get().singlesOff === true;
  }

  switchSingles(on: boolean): void {
    this.patch({ singlesOff: !on });
    this.save();
  }

  /** Gives an action another key. Returns why not, if it cannot have it. */
  change(action: ActionId, key: string): string | undefined {
    if (FIXED.has(key)) return t('desk.alwaysDoesTheSameAnd', { key });
    const other = this.actionWith(key);
    if (other && other !== action) return t('desk.isAlreadyTheKeyFor', { key, name: ACTIONS[other].name });
    this.patch({ [action]: key });
    this.save();
    return undefined;
  }

  reset(): void {
    this.set({});
    this.save();
  }

  private actionWith(key: string): ActionId | undefined {
    return ACTION_IDS.find((action) => this.setKeyOf(action) === key);
  }

  private save(): void {
    if (this.owner === 'teacher')
      // They are kept in this browser too, and sent again with the next change.
      void request('PUT', PREFERENCE, { value: this.get() }).catch(() => undefined);
  }
}

function load(owner: string): Keys {
  return JSON.parse(localStorage.getItem(`${STORE_KEY}.${owner}`) ?? '{}') as Keys;
}

/** How a pressed key is written: letters in capitals, Ctrl for the command key too. */
export function writtenKey(event: KeyboardEvent | React.KeyboardEvent): string {
  const base =
    event.key === ' '
      ? 'Space'
      : event.key === '='
        ? '+'
        : event.key.length === 1
          ? event.key.toUpperCase()
          : event.key;
  const isLetter = /^[A-Z]$/.test(base);
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey && isLetter ? 'Shift+' : ''}${base}`;
}
