import { useQuery } from '@tanstack/react-query';
import { placedDrawing } from '@doodla/core/drawings';
import type { LineDrawing } from '@doodla/core/drawings';
import { asGroup } from '../desk/asGroup';
import type { DrawingName } from '../desk/lineDrawings';
import { drawingNamesQuery, drawingsNamed, lineDrawingsQuery } from '../desk/lineDrawings';
import type { PageDesk } from '../room/pageDesk';
import { DrawingPicture } from '../ui/DrawingPicture';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { DragCard } from './DragCard';
import { placeMarks } from './placeMarks';

/** How large a drawing is put on the page; page units. */
const SIDE = 160;

/** Line drawings, by word; ordinary ink and paths once they are on the page. */
export function DrawingCards({ desk, question }: { desk: PageDesk; question: string }) {
  const { data: names = [], error } = useQuery(drawingNamesQuery);
  const { data: drawings, error: missing } = useQuery(lineDrawingsQuery);
  const problem = error ?? missing;
  return (
    <>
      {problem && <Problem>{problem.message}</Problem>}
      <ul aria-label={t('drawings.lines')} className="grid grid-cols-4 gap-0.5">
        {drawingsNamed(names, question).map((named) => (
          <li key={named[0]} className="[content-visibility:auto] [contain-intrinsic-height:5rem]">
            <DrawingCard desk={desk} named={named} drawing={drawings?.get(named[0])} />
          </li>
        ))}
      </ul>
    </>
  );
}

interface DrawingCardProps {
  desk: PageDesk;
  named: DrawingName;
  drawing: LineDrawing | undefined;
}

function DrawingCard({ desk, named: [, name], drawing }: DrawingCardProps) {
  if (!drawing) return null;
  return (
    <DragCard
      desk={desk}
      label={name}
      picture={<DrawingPicture drawing={drawing} className="aspect-square w-full p-1 text-ink" />}
      onUse={(at) => putDrawing(desk, drawing, name, at)}
    />
  );
}

/** Puts a drawing on the shown page in the pen's colour and width, and selects it. */
function putDrawing(desk: PageDesk, drawing: LineDrawing, name: string, at?: { x: number; y: number }): void {
  const common = desk.newMark();
  if (!common) return;
  const box = { x: -SIDE / 2, y: -SIDE / 2, width: SIDE, height: SIDE };
  const marks = asGroup(common, placedDrawing(drawing, box, desk.penCase.get().pen));
  const [first, ...others] = marks;
  if (first) placeMarks(desk, [{ ...first, alt: name }, ...others], at ?? desk.middle());
}
