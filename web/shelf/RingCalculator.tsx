import { useState } from 'react';
import {
  fingerForce,
  passingStrain,
  RING_DOUBT,
  type Ring,
  ringForce,
  ringPressure,
  slottedShare,
} from '../../core/fit/ring';
import { formatPlain } from '../../core/quantity/format';
import { POLYMERS } from '../../core/shelf/polymers';
import { given } from '../../core/shelf/table';
import { Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { StrainGauge } from '../ui/StrainGauge';
import { Facts, FieldGrid, numberOf, TwoColumns } from './calculator';

const FIELDS = [
  ['over', 'Goes over, mm', '31.7'],
  ['free', 'Free inside, mm', '30.8'],
  ['lip', 'Its lip inside, mm (0 is none)', '30'],
  ['wall', 'Wall, mm', '1.6'],
  ['height', 'Height of the wall, mm', '14'],
  ['friction', 'Friction', '0.4'],
  ['count', 'Slots', '8'],
  ['width', 'Slot width, mm', '2'],
  ['share', 'Slots take of the wall, %', '50'],
  ['length', 'Slots through the wall, mm long', '8'],
] as const;
type Key = (typeof FIELDS)[number][0];

/** A soft ring over something rigid: stretch, squeeze and pull, and the effect of slots. */
export function RingCalculator() {
  const [texts, setTexts] = useState(
    () => Object.fromEntries(FIELDS.map(([key, , usual]) => [key, usual])) as Record<Key, string>,
  );
  const [plastic, setPlastic] = useState('TPU95A');
  const polymer = POLYMERS.find(p => p.key === plastic)!;
  const read = Object.fromEntries(
    FIELDS.map(([key]) => [
      key,
      numberOf(texts[key], key === 'friction' || key === 'count' || key === 'share' ? 'count' : 'length'),
    ]),
  ) as Record<Key, ReturnType<typeof numberOf>>;
  const sums = answer(read, (given(polymer, 'modulusLow') + given(polymer, 'modulusHigh')) / 2);
  const [once, often] = [given(polymer, 'strainOnce'), given(polymer, 'strainOften')];
  return (
    <TwoColumns>
      <Stack $gap={10}>
        <FieldGrid>
          {FIELDS.map(([key, label]) => (
            <TextField
              key={key}
              label={label}
              value={texts[key]}
              onChange={text => setTexts(now => ({ ...now, [key]: text }))}
              problem={read[key].problem}
              autoComplete="off"
            />
          ))}
          <Select
            label="Plastic"
            value={plastic}
            options={POLYMERS.map(p => ({ value: p.key, label: p.key }))}
            onChange={p => setPlastic(p)}
          />
        </FieldGrid>
      </Stack>
      <Panel aria-live="polite">
        {'problem' in sums ? (
          <p className="soft">{sums.problem}</p>
        ) : (
          <>
            <StrainGauge strain={sums.strain} often={often / 100} once={once / 100} />
            <Facts rows={sums.rows} />
            <Notice level={100 * sums.strain > once ? 'stop' : 100 * sums.strain > often ? 'warn' : 'note'}>
              {100 * sums.strain > once
                ? `Beyond what ${plastic} bears: ${once} % once. A larger ring, a lower lip, or a softer plastic.`
                : 100 * sums.strain > often
                  ? `Fine to put on and leave; on and off often it bears ${often} %.`
                  : `${plastic} bears ${often} % often, ${once} % once.`}
            </Notice>
            <p className="soft" style={{ fontSize: 13 }}>
              Forces may be {RING_DOUBT} times more or less on a print: what the hands say of a try counts for
              more. Shallow slots soften little, since the thick sectors between them stay; slots through the
              wall make fingers, which bend.
            </p>
          </>
        )}
      </Panel>
    </TwoColumns>
  );
}

function answer(read: Record<Key, { value: number | null }>, modulus: number) {
  const of = (key: Key) => read[key].value;
  if (FIELDS.some(([key]) => of(key) === null))
    return { problem: 'Fill in the numbers: the answer appears here.' };
  const n = Object.fromEntries(FIELDS.map(([key]) => [key, of(key)!])) as Record<Key, number>;
  if (!(n.free > 0)) return { problem: 'The free inside is above 0 mm.' };
  const strain = n.over / n.free - 1;
  if (strain <= 0)
    return { problem: 'It is not stretched: the free inside is no smaller than what it goes over.' };
  try {
    const ring: Ring = { diameter: n.over, wall: n.wall, height: n.height, modulus };
    const force = ringForce(ring, strain);
    const share = slottedShare(ring, { count: n.count, width: n.width, depth: n.share / 100 });
    const fingers =
      n.count >= 2 ? fingerForce(ring, { count: n.count, width: n.width, length: n.length }, strain) : null;
    const newton = (f: number) => `${formatPlain(f, f < 10 ? 1 : 0)} N`;
    return {
      strain: Math.max(strain, n.lip > 0 ? passingStrain(n.over, n.lip) : 0),
      rows: [
        { label: 'stretched at home by', value: `${formatPlain(100 * strain, 1)} %`, id: 'ring-strain' },
        ...(n.lip > 0
          ? [
              {
                label: 'its lip while passing, by',
                value: `${formatPlain(100 * passingStrain(n.over, n.lip), 1)} %`,
                id: 'ring-passing',
              },
            ]
          : []),
        { label: 'squeezes with', value: `${formatPlain(ringPressure(ring, strain), 3)} MPa` },
        { label: 'pulls off with about', value: newton(n.friction * force), id: 'ring-pull' },
        {
          label: 'with the slots in the wall',
          value: `${newton(n.friction * force * share)}, ${formatPlain(100 * (1 - share), 0)} % less`,
          id: 'ring-slotted',
        },
        ...(fingers
          ? [
              {
                label: 'with them through it: fingers',
                value: `${newton(n.friction * fingers.force)}, ${formatPlain(100 * fingers.rootStrain, 1)} % at their roots`,
                id: 'ring-fingers',
              },
            ]
          : []),
      ],
    };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}
