import { useStore } from '../store/useStore';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';
import { CoverSheet } from './CoverSheet';
import { FocusBar } from './FocusBar';
import { MagnifierGlass } from './MagnifierGlass';
import { SpotlightShade } from './SpotlightShade';

/** What the class's eye is led to, over the page. */
export default function FocusOverlay({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  useStore(desk.classroom!.scene);
  useStore(desk.pageId);
  useStore(stage.view);
  const { focus } = desk;
  if (!focus) return null;
  const leads = desk.isTeacher && desk.room.device !== 'pad' && desk.mayWrite;
  return (
    <>
      {focus.kind === 'spotlight' && <SpotlightShade focus={focus} stage={stage} desk={desk} leads={leads} />}
      {focus.kind === 'cover' && <CoverSheet focus={focus} stage={stage} desk={desk} leads={leads} />}
      {focus.kind === 'magnifier' && <MagnifierGlass focus={focus} stage={stage} desk={desk} leads={leads} />}
      {leads && <FocusBar focus={focus} desk={desk} />}
    </>
  );
}
