import { armEnd, PROTRACTOR_BASE } from '@doodla/core/instruments';
import { memo } from 'react';
import { LETTERS, LOOK } from './look';

interface ProtractorFaceProps {
  radius: number;
  full: boolean;
  arm: number;
  /** Angles of lines that leave its middle, degrees. */
  readings: readonly number[];
  /** As they are written. */
  said(angle: number): string;
}

const RADIANS = Math.PI / 180;
const around = (angle: number, radius: number) =>
  [Math.cos(angle * RADIANS) * radius, -Math.sin(angle * RADIANS) * radius] as const;
const coordinates = ([x, y]: readonly [number, number]) => `${x.toFixed(2)} ${y.toFixed(2)}`;
const ray = (angle: number, from: number, to: number) =>
  `M${coordinates(around(angle, from))}L${coordinates(around(angle, to))}`;

/** A protractor in its own plane, its arm, and what it reads. */
export const ProtractorFace = memo(function ProtractorFace(props: ProtractorFaceProps) {
  const { radius, full, arm, readings, said } = props;
  return (
    <g>
      <Disc radius={radius} full={full} />
      <path d={`M0 0L${coordinates(armEnd({ radius, arm }))}`} stroke={LOOK.edge} strokeWidth={1.6} />
      {readings.map((angle) => {
        const [x, y] = around(angle, radius + 16);
        return (
          <g key={angle}>
            <path d={ray(angle, radius - 12, radius + 4)} stroke={LOOK.reading} strokeWidth={2.5} />
            <text
              x={x}
              y={y + 5}
              textAnchor="middle"
              fontSize={15}
              fontWeight="bold"
              fill={LOOK.reading}
              stroke="#fff"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {said(angle)}
            </text>
          </g>
        );
      })}
    </g>
  );
});

/** The outline of a protractor in its own plane. */
export function discPath(radius: number, full: boolean, base: number = PROTRACTOR_BASE): string {
  if (full)
    return `M${radius} 0A${radius} ${radius} 0 1 0 ${-radius} 0A${radius} ${radius} 0 1 0 ${radius} 0Z`;
  return `M${radius} ${base}V0A${radius} ${radius} 0 0 0 ${-radius} 0V${base}Z`;
}

const Disc = memo(function Disc({ radius, full }: { radius: number; full: boolean }) {
  const angles = Array.from({ length: full ? 360 : 181 }, (_, angle) => angle);
  const marks = angles.map((angle) => {
    const length = angle % 10 === 0 ? 12 : angle % 5 === 0 ? 9 : 6;
    return ray(angle, radius - length, radius);
  });
  return (
    <g>
      <path d={discPath(radius, full)} fill={LOOK.body} stroke={LOOK.edge} strokeWidth={1} />
      <path d={marks.join('')} stroke={LOOK.ink} strokeWidth={0.6} />
      <path
        d={`M${-radius} 0H${radius}M0 0V${-radius * 0.16}M0 0V${full ? radius * 0.16 : 6}`}
        stroke={LOOK.ink}
        strokeWidth={0.8}
      />
      <circle r={2.5} fill="none" stroke={LOOK.ink} strokeWidth={0.8} />
      {angles
        .filter((angle) => angle % 10 === 0)
        .map((angle) => (
          <g key={angle} textAnchor="middle" fill={LOOK.ink}>
            <Number angle={angle} radius={radius - 22} text={angle} size={LETTERS * 0.9} />
            {!full && <Number angle={angle} radius={radius - 36} text={180 - angle} size={LETTERS * 0.75} />}
          </g>
        ))}
    </g>
  );
});

function Number({
  angle,
  radius,
  text,
  size,
}: {
  angle: number;
  radius: number;
  text: number;
  size: number;
}) {
  const [x, y] = around(angle, radius);
  return (
    <text fontSize={size} transform={`translate(${x.toFixed(2)} ${y.toFixed(2)}) rotate(${90 - angle})`}>
      {text}
    </text>
  );
}
