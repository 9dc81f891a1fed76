import { INSTRUMENT_KINDS } from '@doodla/core/instruments';
import { NO_SCENE } from '@doodla/core/client';
import { instrumentsOn, toggleInstrument } from '../desk/instruments';
import { INSTRUMENT_ICONS } from '../instruments/instrumentIcons';
import { INSTRUMENT_NAMES } from '../instruments/instrumentNames';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';

/** What is laid on the page to draw and measure with; taken again it is put away. */
export default function MeasureSheet({ desk }: { desk: PageDesk }) {
  useStore(desk.classroom?.scene ?? NO_SCENE);
  useStore(desk.ownInstruments);
  const lying = new Set(
    instrumentsOn(desk)
      .filter(({ isMine }) => isMine)
      .map(({ instrument }) => instrument.kind),
  );
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label={t('reach.measure')} className="grid grid-cols-3 gap-1.5">
        {INSTRUMENT_KINDS.map((kind) => (
          <IconButton
            key={kind}
            data-closes
            label={INSTRUMENT_NAMES[kind]}
            caption={t(`instruments.${kind}Short`)}
            icon={INSTRUMENT_ICONS[kind]}
            active={lying.has(kind)}
            className="min-h-14 bg-board-light"
            onClick={() => toggleInstrument(desk, kind)}
          />
        ))}
      </div>
      <p className="text-sm">{t('instruments.hint')}</p>
    </div>
  );
}
