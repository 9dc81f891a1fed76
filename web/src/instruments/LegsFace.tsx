import { memo } from 'react';
import { LOOK } from './look';

/** How high the hinge stands over the points, page units. */
export const HINGE = 105;

/** Compasses, which end in a pencil of a colour, or dividers, which end in two points; in their own plane. */
export const LegsFace = memo(function LegsFace({ radius, pencil }: { radius: number; pencil?: string }) {
  const [x, y] = [radius / 2, -HINGE];
  return (
    <g strokeLinecap="round">
      <path d={`M${x} ${y}L0 0`} stroke={LOOK.metal} strokeWidth={7} />
      <path d={`M${x} ${y}L${radius} 0`} stroke={LOOK.metal} strokeWidth={7} />
      <Point x={0} from={x} />
      <Point x={radius} from={x} {...(pencil !== undefined && { pencil })} />
      <path d={`M${x} ${y}V${y - 16}`} stroke={LOOK.metal} strokeWidth={9} />
      <circle cx={x} cy={y} r={9} fill={LOOK.body} stroke={LOOK.metal} strokeWidth={3} />
    </g>
  );
});

/** The last part of a leg, as part of it. */
const TIP = 0.2;

function Point({ x, from, pencil }: { x: number; from: number; pencil?: string }) {
  const [hx, hy] = [x + (from - x) * TIP, -HINGE * TIP];
  const path = `M${hx} ${hy}L${x} 0`;
  return (
    <>
      <path d={path} stroke="#fff" strokeWidth={8} />
      <path d={path} stroke={pencil ?? LOOK.ink} strokeWidth={pencil === undefined ? 2 : 4} />
      <circle cx={x} cy={0} r={1.6} fill={pencil ?? LOOK.ink} />
    </>
  );
}
