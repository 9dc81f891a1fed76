import { t } from '../words';
/** While the tools are hidden, touching either edge of the screen brings them back. */
export default function EdgeTouch({ onTouch }: { onTouch(): void }) {
  return (
    <>
      {(['left', 'right'] as const).map((side) => (
        <button
          key={side}
          type="button"
          aria-label={`Bring the tools back (${side} edge)`}
          title={t('present.bringTheToolsBack')}
          onClick={onTouch}
          className="absolute inset-y-0 z-30 w-4 touch-none opacity-0 hover:bg-paper hover:opacity-40 focus-visible:bg-paper focus-visible:opacity-70"
          style={{ [side]: 0 }}
        />
      ))}
    </>
  );
}
