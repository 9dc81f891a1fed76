import { useStore } from '../store/useStore';
import { Slider } from '../ui/Slider';
import type { PageDesk } from '../room/pageDesk';
import { SheetTool } from './SheetTool';
import { toolsIn } from '../tools/tools';
import { t } from '../words';

/** Pointing: a dot that leaves nothing behind, and ink that fades. */
export default function PointSheet({ desk }: { desk: PageDesk }) {
  const { wispSeconds } = useStore(desk.penCase);
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label={t('reach.point')} className="grid grid-cols-2 gap-1.5">
        {toolsIn('Point').map((tool) => (
          <SheetTool key={tool} tool={tool} desk={desk} />
        ))}
      </div>
      <Slider
        label={t('reach.aWispFadesAfter')}
        unit="s"
        min={1}
        max={15}
        step={1}
        value={wispSeconds}
        onChange={(seconds) => desk.penCase.patch({ wispSeconds: seconds })}
      />
    </div>
  );
}
