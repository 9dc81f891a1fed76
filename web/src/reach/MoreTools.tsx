import { Crosshair, Focus, Ruler } from 'lucide-react';
import { lazy, Suspense } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { toolsIn } from '../tools/tools';
import { HandButtons } from '../asking/HandButtons';
import { GroupSheet } from './GroupSheet';
import { ModeSwitch } from './ModeSwitch';
import { PictureButton } from './PictureButton';
import { ReadyPens } from './ReadyPens';
import { ToolButton } from './ToolButton';
import { WipeMenu } from './WipeMenu';
import { GROUP_NAMES } from './groupNames';

const TalkButton = lazy(() =>
  import('../talk/TalkButton').then((module) => ({ default: module.TalkButton })),
);

const PointSheet = lazy(() => import('./PointSheet'));
const FocusSheet = lazy(() => import('./FocusSheet'));
const MeasureSheet = lazy(() => import('./MeasureSheet'));

/** All tools, for where the strip has no room for them. */
export default function MoreTools({ desk }: { desk: PageDesk }) {
  return (
    <div className="flex flex-col gap-2">
      <ModeSwitch desk={desk} side="top" />
      {(['Write', 'Place', 'Arrange'] as const).map((name) => (
        <div key={name} role="group" aria-label={GROUP_NAMES[name]} className="grid grid-cols-4 gap-1">
          {toolsIn(name).map((tool) => (
            <ToolButton key={tool} tool={tool} desk={desk} side="top" />
          ))}
          {name === 'Place' && <PictureButton desk={desk} side="top" />}
          {name === 'Arrange' && (
            <>
              <WipeMenu desk={desk} side="top" />
              <GroupSheet name="Point" icon={<Crosshair aria-hidden />} desk={desk} side="top">
                <PointSheet desk={desk} />
              </GroupSheet>
              {desk.mayMeasure && (
                <GroupSheet name="Measure" icon={<Ruler aria-hidden />} desk={desk} side="top">
                  <MeasureSheet desk={desk} />
                </GroupSheet>
              )}
              {desk.isTeacher && (
                <GroupSheet name="Focus" icon={<Focus aria-hidden />} desk={desk} side="top">
                  <FocusSheet desk={desk} />
                </GroupSheet>
              )}
            </>
          )}
        </div>
      ))}
      {desk.classroom && !desk.isTeacher && (
        <>
          <HandButtons room={desk.room} />
          <Suspense>
            <TalkButton room={desk.room} />
          </Suspense>
        </>
      )}
      <ReadyPens desk={desk} />
    </div>
  );
}
