import type { Side, StandardWant } from '../../../core/fit/wants';

/** Width of the gap in the picture. */
const GAPS: Record<StandardWant, number> = {
  'drop-on': 5,
  slide: 3,
  snug: 1,
  press: 0,
  stretch: 0,
  click: 2,
  jam: 1,
  screw: 2,
  bolt: 3,
  insert: 0,
  glue: 1.6,
  tape: 3,
  seal: 4.5,
};

/** Two surfaces in section: ours in the working blue, the object in clay. */
export function WantPicture({ want, side }: { want: StandardWant; side: Side }) {
  const gap = GAPS[want];
  const filled = want === 'glue' || want === 'tape' || want === 'seal';
  const ours = 'var(--blue)';
  const theirs = 'var(--clay)';
  const [female, male] = side === 'inside' ? [ours, theirs] : [theirs, ours];
  const half = 13;
  const tight = want === 'press' || want === 'stretch' || want === 'insert';
  return (
    <svg width="64" height="46" viewBox="0 0 64 46" aria-hidden>
      {want === 'jam' ? (
        <>
          <path d={`M14 6h7l6 36h-7zM50 6h-7l-6 36h7z`} fill={female} />
          <path d="M23 8h18l-5 32H28z" fill={male} stroke="var(--strong)" strokeWidth="0.7" />
        </>
      ) : want === 'screw' ? (
        <>
          <path
            d="M10 4h8l4 4-4 5 4 5-4 5 4 5-4 5 4 5-4 4h-8zM54 4h-8l-4 4 4 5-4 5 4 5-4 5 4 5-4 5 4 4h8z"
            fill={female}
          />
          <path
            d="M22 3h20l3 5-4 5 4 5-4 5 4 5-4 5 4 5-3 4H22l-3-4 4-5-4-5 4-5-4-5 4-5-4-5z"
            fill={male}
            stroke="var(--strong)"
            strokeWidth="0.7"
            transform="translate(6.4 0) scale(0.8 1)"
          />
        </>
      ) : (
        <>
          <path
            d={
              want === 'click'
                ? `M8 4h48v38h-8v-9l-4-3 4-3V12H16v15l4 3-4 3v9H8z`
                : `M${32 - half - gap - 8} 4H${32 + half + gap + 8}V42H${32 + half + gap}V12H${32 - half - gap}V42H${32 - half - gap - 8}Z`
            }
            fill={female}
          />
          <path
            d={
              want === 'click'
                ? 'M18 15h28v11l-3 4 3 4v8H18v-8l3-4-3-4z'
                : `M${32 - half} 15H${32 + half}V42H${32 - half}Z`
            }
            fill={male}
            stroke="var(--strong)"
            strokeWidth="0.7"
          />
          {filled ? (
            <path
              d={`M${32 - half - gap} 15h${gap}V42h${-gap}zM${32 + half} 15h${gap}V42h${-gap}z`}
              fill="var(--loose)"
            />
          ) : null}
          {tight ? (
            <path
              d={`M${32 - half} 15V42M${32 + half} 15V42`}
              stroke="var(--tight)"
              strokeWidth={want === 'press' ? 2 : 3.4}
            />
          ) : null}
        </>
      )}
    </svg>
  );
}
