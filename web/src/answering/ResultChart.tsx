import type { AnswerItem, ItemCount } from '@doodla/core/answers';
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale } from 'chart.js';
import { useEffect, useRef } from 'react';
import { t } from '../words';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale);

const INK = '#1d2723';
const LONGEST_NAME = 28;

/** Okabe–Ito colours (Color Universal Design, 2008), dark to light, so that they differ in grey as well. */
const PARTS = [
  { part: 'first', colour: '#0072b2', name: 'answers.rightAtFirst' },
  { part: 'later', colour: '#56b4e9', name: 'answers.rightLater' },
  { part: 'wrong', colour: '#d55e00', name: 'answers.notRight' },
  { part: 'open', colour: '#e8e2d2', name: 'answers.open' },
] as const;

interface ResultChartProps {
  items: readonly AnswerItem[];
  counts: readonly ItemCount[];
}

/** Where the class goes wrong, item by item. */
export default function ResultChart({ items, counts }: ResultChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart>(undefined);
  useEffect(() => {
    const made = new Chart(canvas.current!, {
      type: 'bar',
      data: {
        labels: [],
        datasets: PARTS.map(({ colour, name }) => ({
          label: t(name),
          data: [],
          backgroundColor: colour,
          borderColor: INK,
          borderWidth: 1,
        })),
      },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: true, position: 'top', labels: { color: INK, font: { size: 14 } } } },
        scales: {
          x: { stacked: true, beginAtZero: true, ticks: { precision: 0, color: INK, font: { size: 14 } } },
          y: { stacked: true, ticks: { autoSkip: false, color: INK, font: { size: 14 } } },
        },
      },
    });
    chart.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const { data } = chart.current!;
    data.labels = items.map(({ name }, i) => `${i + 1}. ${shortened(name)}`);
    for (const [i, { part }] of PARTS.entries()) data.datasets[i]!.data = counts.map((count) => count[part]);
    chart.current!.update();
  }, [items, counts]);
  return (
    <div style={{ height: 90 + items.length * 30 }}>
      <canvas ref={canvas} aria-hidden />
    </div>
  );
}

const shortened = (name: string) => (name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME)} …` : name);
