interface ProgressBarProps {
  label: string;
  /** 0 to 1. */
  part: number;
}

export function ProgressBar({ label, part }: ProgressBarProps) {
  const percent = Math.round(part * 100);
  return (
    <div>
      <div className="mb-1 flex justify-between">
        <span>{label}</span>
        <span>{percent} %</span>
      </div>
      <div
        role="progressbar"
        aria-label={label}
        aria-valuenow={percent}
        className="h-3 overflow-hidden rounded-full border border-paper-line bg-paper-dim"
      >
        <div className="h-full bg-board" style={{ width: `${percent}%` }} />
      </div>
    </div>
  );
}
