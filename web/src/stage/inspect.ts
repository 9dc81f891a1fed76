import { markBounds } from '@doodla/core';
import type { Glass } from '../desk/glass';
import type { Workspace } from '../workspace/workspace';

/** What the open page says of itself; for tests and for whoever looks into a school's trouble. */
function stageState(workspace: Workspace, glass: Pick<Glass, 'host' | 'view'>) {
  const page = workspace.pageId.get();
  const marks = page === undefined ? [] : workspace.layers.flatMap((layer) => layer.on(page).all());
  const { scale, x, y } = glass.view.get();
  const box = glass.host.getBoundingClientRect();
  const { pointers, ink, classroom } = workspace;
  return {
    page,
    scene: classroom?.scene.get() ?? null,
    pointing: page === undefined ? [] : pointers.onPage(page).map(([, { trail }]) => trail.at(-1)),
    wet: page === undefined ? 0 : ink.onPage(page).length,
    marks: marks.map((mark) => ({
      id: mark.id,
      kind: mark.kind,
      author: mark.author,
      colour: 'colour' in mark.style ? mark.style.colour : 'line' in mark.style ? mark.style.line : null,
      fill: 'fill' in mark.style ? mark.style.fill : null,
      bounds: markBounds(mark),
      ...('text' in mark && { text: mark.text }),
      ...('exact' in mark && { text: mark.exact }),
    })),
    screen: workspace.screen.state.get() ?? null,
    width: workspace.page?.width ?? 0,
    waiting: workspace.target.status.get().waiting,
    scale,
    x: box.left + x,
    y: box.top + y,
  };
}

/** Lets the browser's console ask: `doodla.stageState()`. */
export function exposeStage(workspace: Workspace, glass: Pick<Glass, 'host' | 'view'>): void {
  const source = () => workspace.sharing.presenter.get()?.source;
  const { screen } = workspace;
  const state = () => stageState(workspace, glass);
  const { doodla } = window as unknown as { doodla?: object };
  const { classroom } = workspace;
  const own = workspace.isBeside
    ? { ...doodla, sideState: state }
    : { stageState: state, source, screen, classroom };
  Object.assign(window, { doodla: own });
}
