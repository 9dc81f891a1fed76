import { markBounds } from '@doodla/core';
import type { Glass } from '../desk/glass';
import type { PageDesk } from '../room/pageDesk';
import { toolsHere } from '../ui/moments';

/** What the open page says of itself; for tests and for whoever looks into a school's trouble. */
function stageState(desk: PageDesk, glass: Pick<Glass, 'host' | 'view'>) {
  const page = desk.pageId.get();
  const marks = page === undefined ? [] : desk.layers.flatMap((layer) => layer.on(page).all());
  const { scale, x, y } = glass.view.get();
  const box = glass.host.getBoundingClientRect();
  const { pointers, ink, classroom } = desk;
  return {
    page,
    scene: classroom?.scene.get() ?? null,
    pointing: page === undefined ? [] : pointers.onPage(page).map(([, { trail }]) => trail.at(-1)),
    wet: page === undefined ? 0 : ink.onPage(page, desk.shownSpace).length,
    marks: marks.map((mark) => ({
      id: mark.id,
      kind: mark.kind,
      author: mark.author,
      colour: 'colour' in mark.style ? mark.style.colour : 'line' in mark.style ? mark.style.line : null,
      fill: 'fill' in mark.style ? mark.style.fill : null,
      bounds: markBounds(mark),
      rule: mark.rule,
      standIn: mark.standIn,
      ...('text' in mark && { text: mark.text }),
      ...('exact' in mark && { text: mark.exact }),
      ...('recipe' in mark && { text: mark.recipe }),
    })),
    screen: desk.screen.state.get() ?? null,
    width: desk.page?.width ?? 0,
    waiting: desk.target.status.get().waiting,
    scale,
    x: box.left + x,
    y: box.top + y,
  };
}

/** Lets the browser's console ask: `doodla.stageState()`. */
export function exposeStage(desk: PageDesk, glass: Pick<Glass, 'host' | 'view'>): void {
  const source = () => desk.room.sharing.presenter.get()?.source;
  const { screen } = desk;
  const state = () => stageState(desk, glass);
  const { doodla } = window as unknown as { doodla?: object };
  const { classroom } = desk;
  const own = desk.isBeside
    ? { ...doodla, sideState: state }
    : { stageState: state, source, screen, classroom, toolsHere: toolsHere.passed };
  Object.assign(window, { doodla: own });
}
