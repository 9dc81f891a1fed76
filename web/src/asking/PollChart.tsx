import type { PollState } from '@doodla/core';
import { barsOf, medianOf } from '@doodla/core';
import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';
import { t } from '../words';
import { optionNames } from '../words/optionNames';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

const INK = '#1d2723';
const BAR = '#0072b2';

interface PollChartProps {
  poll: PollState;
  /** Given the canvas once it has been drawn. */
  onDrawn?(canvas: HTMLCanvasElement): void;
}

/** How often each answer was given, as a chart and in words. */
export default function PollChart({ poll, onDrawn }: PollChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart>(undefined);
  const bars = useMemo(() => {
    const counted = barsOf(poll, poll.answers ?? []);
    const names = optionNames(poll);
    return counted.map(({ label, count }, i) => ({ label: names[i] ?? label, count }));
  }, [poll]);
  useEffect(() => {
    const made = new Chart(canvas.current!, {
      type: 'bar',
      data: { labels: [], datasets: [{ data: [], backgroundColor: BAR }] },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { beginAtZero: true, ticks: { precision: 0, color: INK, font: { size: 14 } } },
          y: { ticks: { color: INK, font: { size: 16 } } },
        },
      },
    });
    chart.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const { data } = chart.current!;
    data.labels = bars.map(({ label }) => label);
    data.datasets[0]!.data = bars.map(({ count }) => count);
    chart.current!.update();
    onDrawn?.(canvas.current!);
  }, [bars, onDrawn]);
  const median =
    poll.kind === 'number' ? medianOf((poll.answers ?? []).map(({ value }) => Number(value))) : undefined;
  return (
    <div>
      <div style={{ height: 60 + bars.length * 34 }}>
        <canvas ref={canvas} aria-hidden />
      </div>
      <ul aria-label={t('asking.results')} className="sr-only">
        {bars.map(({ label, count }) => (
          <li key={label}>{t('asking.bar', { label, count })}</li>
        ))}
      </ul>
      {median !== undefined && <p>{t('asking.median', { value: median })}</p>}
    </div>
  );
}
