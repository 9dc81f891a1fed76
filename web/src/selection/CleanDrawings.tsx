import { useQuery } from '@tanstack/react-query';
import { takeDrawing } from '../desk/cleanDrawing';
import { drawingNamesQuery } from '../desk/lineDrawings';
import type { DrawingOffer } from '../desk/shapeOffer';
import type { PageDesk } from '../room/pageDesk';
import { DrawingPicture } from '../ui/DrawingPicture';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';

/** Clean drawings that the ink may be meant for, the likeliest first; one that is taken is in the place of the ink. */
export function CleanDrawings({ offer, desk }: { offer: DrawingOffer; desk: PageDesk }) {
  const { data: names = [] } = useQuery(drawingNamesQuery);
  const nameOf = (id: string) => names.find(([own]) => own === id)?.[1] ?? id;
  return (
    <div role="group" aria-label={t('drawings.likest')} className="grid grid-cols-6">
      {offer.drawings.map((drawing) => (
        <IconButton
          key={drawing.id}
          label={nameOf(drawing.id)}
          active={offer.taken?.drawing === drawing.id}
          icon={<DrawingPicture drawing={drawing} className="size-8" />}
          onClick={() => take(desk, offer, drawing, nameOf(drawing.id))}
        />
      ))}
    </div>
  );
}

function take(desk: PageDesk, offer: DrawingOffer, drawing: DrawingOffer['drawings'][number], name: string) {
  if (offer.taken?.drawing === drawing.id) return;
  takeDrawing(desk, offer, drawing, name);
  const next = desk.shapeOffer.get();
  if (next && 'drawings' in next && next.taken) desk.selection.select(next.taken.marks);
}
