import { useStore } from '../store/store';
import type { Stage } from '../stage/stage';
import type { Workspace } from '../workspace/workspace';
import { CoverSheet } from './CoverSheet';
import { FocusBar } from './FocusBar';
import { MagnifierGlass } from './MagnifierGlass';
import { SpotlightShade } from './SpotlightShade';

/** What the class's eye is led to, over the page. */
export default function FocusOverlay({ workspace, stage }: { workspace: Workspace; stage: Stage }) {
  useStore(workspace.classroom!.scene);
  useStore(workspace.pageId);
  useStore(stage.view);
  const { focus } = workspace;
  if (!focus) return null;
  const leads = workspace.isTeacher && workspace.device !== 'pad' && workspace.mayWrite;
  return (
    <>
      {focus.kind === 'spotlight' && (
        <SpotlightShade focus={focus} stage={stage} workspace={workspace} leads={leads} />
      )}
      {focus.kind === 'cover' && (
        <CoverSheet focus={focus} stage={stage} workspace={workspace} leads={leads} />
      )}
      {focus.kind === 'magnifier' && (
        <MagnifierGlass focus={focus} stage={stage} workspace={workspace} leads={leads} />
      )}
      {leads && <FocusBar focus={focus} workspace={workspace} />}
    </>
  );
}
