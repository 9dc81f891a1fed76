import type { AlignEdge, Mark } from '@doodla/core';
import { hasBox } from '@doodla/core';
import { AlignHorizontalDistributeCenter, Ellipsis, FlipVertical2 } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { PageDesk } from '../room/pageDesk';
import { putOnShelf } from '../shelf/putOnShelf';
import { IconButton } from '../ui/IconButton';
import { MENU_ITEM, MenuContent } from '../ui/MenuContent';
import { t } from '../words';
import { copyPicture } from './copyPicture';
import { cleanSelection, evenSelection, formulaSelection, typeSelection } from './neatenSelection';
import { prepareMarks } from './prepareMarks';

const EDGES: [AlignEdge, string][] = [
  ['left', t('selection.lineUpAtTheLeft')],
  ['centre', t('selection.lineUpInTheMiddle')],
  ['right', t('selection.lineUpAtTheRight')],
  ['top', t('selection.lineUpAtTheTop')],
  ['middle', t('selection.lineUpInTheMiddleUp')],
  ['bottom', t('selection.lineUpAtTheBottom')],
];

interface MoreMenuProps {
  marks: readonly Mark[];
  desk: PageDesk;
  onFlip(): void;
  onDescribe(): void;
  onRepeat(): void;
  onConstruct: (() => void) | undefined;
  /** Says what a mark does in class, where that can be said. */
  onRule: (() => void) | undefined;
}

/** What is wanted of selected marks less often. */
export function MoreMenu({ marks, desk, onFlip, onDescribe, onRepeat, onConstruct, onRule }: MoreMenuProps) {
  const { selection } = desk;
  const several = marks.length > 1;
  const grouped = marks.some((mark) => mark.group !== null);
  const ink = marks.filter(({ kind }) => kind === 'stroke');
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton label={t('selection.moreForTheseMarks')} icon={<Ellipsis aria-hidden size={20} />} />
      </DropdownMenu.Trigger>
      <MenuContent>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.reorder('up')}>
          {t('selection.oneStepUp')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.reorder('down')}>
          {t('selection.oneStepDown')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onFlip}>
          <FlipVertical2 aria-hidden size={18} /> {t('selection.mirrorTopToBottom')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} disabled={!several} onSelect={() => selection.group()}>
          {t('common.group')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} disabled={!grouped} onSelect={() => selection.ungroup()}>
          {t('common.ungroup')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.copy()}>
          {t('common.copy')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.cut()}>
          {t('selection.cut')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void copyPicture(desk)}>
          {t('selection.copyAsAPicture')}
        </DropdownMenu.Item>
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onRepeat}>
          {t('selection.repeatInARowOr')}
        </DropdownMenu.Item>
        {ink.length > 1 && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void evenSelection(desk, marks)}>
            {t('shapes.evenOut')}
          </DropdownMenu.Item>
        )}
        {ink.length > 0 && (
          <>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void typeSelection(desk, marks)}>
              {t('writing.typeOut')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void formulaSelection(desk, marks)}>
              {t('formulas.fromInk')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void cleanSelection(desk, marks)}>
              {t('drawings.clean')}
            </DropdownMenu.Item>
          </>
        )}
        {onConstruct && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={onConstruct}>
            {t('construct.title')}
          </DropdownMenu.Item>
        )}
        {onRule && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={onRule}>
            {t('answers.menu')}
          </DropdownMenu.Item>
        )}
        {marks[0] && hasBox(marks[0]) && (
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => desk.plotEdit.set({ is: 'ideaMap', around: marks[0]!.id })}
          >
            {t('ideaMap.asMap')}
          </DropdownMenu.Item>
        )}
        {several &&
          EDGES.map(([edge, name]) => (
            <DropdownMenu.Item key={edge} className={MENU_ITEM} onSelect={() => selection.align(edge)}>
              {name}
            </DropdownMenu.Item>
          ))}
        {marks.length > 2 && (
          <>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.distribute('x')}>
              <AlignHorizontalDistributeCenter aria-hidden size={18} /> {t('selection.sameGapsSideToSide')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => selection.distribute('y')}>
              {t('selection.sameGapsUpAndDown')}
            </DropdownMenu.Item>
          </>
        )}
        {desk.isTeacher && !desk.room.device && (
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => void putOnShelf(desk, ({ keepMarks }) => keepMarks(desk))}
          >
            {t('shelf.putThisOn')}
          </DropdownMenu.Item>
        )}
        {desk.isTeacher && desk.sitting !== undefined && !desk.room.device && (
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => void prepareMarks(desk, marks)}>
            {t('selection.keepThisInTheLesson')}
          </DropdownMenu.Item>
        )}
        <DropdownMenu.Item className={MENU_ITEM} onSelect={onDescribe}>
          {t('selection.describeForThoseWhoCannot')}
        </DropdownMenu.Item>
      </MenuContent>
    </DropdownMenu.Root>
  );
}
