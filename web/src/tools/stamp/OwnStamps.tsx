import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Trash2 } from 'lucide-react';
import { useRef } from 'react';
import { toast } from 'sonner';
import { keepStamp, removeStamp, stampFile, stampsQuery } from '../../api/shelf';
import { preparePicture } from '../../pictures/preparePicture';
import { classes } from '../../ui/classes';
import { IconButton } from '../../ui/IconButton';
import type { PenCase } from '../../desk/penCase';
import { t } from '../../words';

/** Pictures that the teacher has added as stamps. */
export function OwnStamps({ penCase }: { penCase: PenCase }) {
  const { ownStamp } = penCase.get();
  const client = useQueryClient();
  const { data: stamps = [] } = useQuery(stampsQuery);
  const input = useRef<HTMLInputElement>(null);
  const refresh = () => client.invalidateQueries({ queryKey: stampsQuery.queryKey });
  const add = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { id } = await keepStamp((await preparePicture(file)).blob);
      penCase.patch({ ownStamp: id });
      await refresh();
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  const remove = (id: string) => {
    penCase.patch({ ownStamp: null });
    removeStamp(id).then(refresh, (error: Error) => toast.error(error.message));
  };
  return (
    <div>
      <p className="mb-1 text-sm">{t('tools.yourOwn')}</p>
      <div role="radiogroup" aria-label={t('tools.yourOwnStamps')} className="grid grid-cols-4 gap-1">
        {stamps.map(({ id }, i) => (
          <button
            key={id}
            type="button"
            role="radio"
            aria-checked={id === ownStamp}
            aria-label={t('tools.ownStamp', { number: i + 1 })}
            onClick={() => penCase.patch({ ownStamp: id })}
            className={classes(
              'grid h-12 place-items-center overflow-hidden rounded-xl border-2 bg-paper',
              id === ownStamp ? 'border-chalk ring-2 ring-chalk' : 'border-board-line',
            )}
          >
            <img src={stampFile(id)} alt="" className="max-h-10 max-w-full" />
          </button>
        ))}
        <IconButton
          label={t('tools.addAPictureAsA')}
          icon={<Plus aria-hidden />}
          className="border-2 border-dashed border-board-line"
          onClick={() => input.current!.click()}
        />
        {ownStamp !== null && (
          <IconButton
            label={t('tools.takeThisStampOutOf')}
            icon={<Trash2 aria-hidden size={20} />}
            onClick={() => remove(ownStamp)}
          />
        )}
      </div>
      <input
        ref={input}
        type="file"
        accept="image/*"
        aria-label={t('tools.pictureForAStamp')}
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => void add(event.target.files?.[0])}
      />
    </div>
  );
}
