import { useState } from 'react';
import { depthDoubt, insertionDepth, isSelfHolding } from '../../core/fit/taper';
import { formatPlain } from '../../core/quantity/format';
import { TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { ConePicture } from './ConePicture';
import { Facts, numberOf, TwoColumns } from './calculator';

/** A taper that wedges: whether it holds by itself, and how deep it goes in. */
export function TaperCalculator() {
  const [angle, setAngle] = useState('3.8');
  const [friction, setFriction] = useState('0.3');
  const [gap, setGap] = useState('2.5');
  const [doubt, setDoubt] = useState('0.15');
  const read = {
    angle: numberOf(angle, 'angle'),
    friction: numberOf(friction, 'count'),
    gap: numberOf(gap, 'length'),
    doubt: numberOf(doubt, 'length'),
  };
  const sound =
    Object.values(read).every(r => r.value !== null && r.value >= 0) &&
    read.angle.value! > 0 &&
    read.angle.value! < 45;
  const holds = sound && isSelfHolding(read.angle.value!, read.friction.value!);
  return (
    <TwoColumns>
      <Stack $gap={10}>
        <TextField
          label="Half-angle, °"
          value={angle}
          onChange={setAngle}
          hint="Work it out from two diameters under “Work it out”."
          problem={
            read.angle.problem ??
            (read.angle.value! > 0 && read.angle.value! < 45 ? undefined : 'Between 0 and 45°.')
          }
        />
        <TextField
          label="Friction"
          value={friction}
          onChange={setFriction}
          problem={read.friction.problem}
          hint="0.2 smooth, 0.6 rough and dry"
        />
        <TextField
          label="Gap at the mouth, mm across"
          value={gap}
          onChange={setGap}
          problem={read.gap.problem}
          hint="How much wider the bore is than the plug’s tip."
        />
        <TextField
          label="Diameters doubtful by, mm"
          value={doubt}
          onChange={setDoubt}
          problem={read.doubt.problem}
        />
      </Stack>
      <Panel aria-live="polite">
        {sound ? (
          <>
            <ConePicture
              halfAngle={read.angle.value!}
              depth={insertionDepth(read.gap.value!, read.angle.value!)}
              doubt={depthDoubt(read.doubt.value!, read.angle.value!)}
            />
            <Facts
              rows={[
                {
                  label: 'goes in by',
                  value: `${formatPlain(insertionDepth(read.gap.value!, read.angle.value!), 1)} mm`,
                  id: 'taper-depth',
                },
                {
                  label: 'give or take',
                  value: `${formatPlain(depthDoubt(read.doubt.value!, read.angle.value!), 1)} mm`,
                },
              ]}
            />
            <Notice level={holds ? 'note' : 'warn'}>
              {holds
                ? 'It holds by itself: its half-angle is below the angle of friction. A slim taper wedges hard: leave room to knock it out.'
                : 'It slides back out: its half-angle is above the angle of friction. Make it slimmer, or hold it with a screw.'}
            </Notice>
          </>
        ) : (
          <p className="soft">Fill in the numbers: the answer appears here.</p>
        )}
      </Panel>
    </TwoColumns>
  );
}
