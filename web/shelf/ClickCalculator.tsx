import { useState } from 'react';
import {
  type BeamShape,
  bendingForce,
  matingForce,
  permissibleStrain,
  rootStrain,
} from '../../core/fit/click';
import { formatPlain } from '../../core/quantity/format';
import { POLYMERS } from '../../core/shelf/polymers';
import { given } from '../../core/shelf/table';
import { Checkbox, Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { StrainGauge } from '../ui/StrainGauge';
import { BeamPicture } from './BeamPicture';
import { Facts, FieldGrid, numberOf, TwoColumns } from './calculator';

/** A snap-fit beam: whether it survives bending, and how hard it goes in and out. */
export function ClickCalculator() {
  const [texts, setTexts] = useState({
    length: '15',
    thickness: '1.6',
    width: '6',
    bend: '1',
    way: '30',
    back: '45',
    friction: '0.4',
  });
  const [shape, setShape] = useState<BeamShape>('straight');
  const [plastic, setPlastic] = useState('PETG');
  const [often, setOften] = useState(true);
  const [across, setAcross] = useState(false);
  const field = (key: keyof typeof texts, label: string, kind: 'length' | 'angle' | 'count' = 'length') => (
    <TextField
      label={label}
      value={texts[key]}
      onChange={text => setTexts(now => ({ ...now, [key]: text }))}
      problem={numberOf(texts[key], kind).problem}
      autoComplete="off"
    />
  );
  const read = {
    length: numberOf(texts.length, 'length').value,
    thickness: numberOf(texts.thickness, 'length').value,
    width: numberOf(texts.width, 'length').value,
    bend: numberOf(texts.bend, 'length').value,
    way: numberOf(texts.way, 'angle').value,
    back: numberOf(texts.back, 'angle').value,
    friction: numberOf(texts.friction, 'count').value,
  };
  const polymer = POLYMERS.find(p => p.key === plastic)!;
  const sound = Object.values(read).every(v => v !== null && v > 0) && read.way! < 90 && read.back! <= 90;
  const beam = { length: read.length!, thickness: read.thickness!, width: read.width!, shape };
  const strain = sound ? rootStrain(beam, read.bend!) : 0;
  const bears = permissibleStrain(given(polymer, 'strainOnce') / 100, often, across);
  const force = sound
    ? bendingForce(beam, strain, (given(polymer, 'modulusLow') + given(polymer, 'modulusHigh')) / 2)
    : 0;
  const out = sound ? matingForce(force, read.back!, read.friction!) : 0;
  return (
    <TwoColumns>
      <Stack $gap={10}>
        <FieldGrid>
          {field('length', 'Length, mm')}
          {field('thickness', 'Thickness at the root, mm')}
          {field('width', 'Width, mm')}
          {field('bend', 'Bends by, mm')}
          {field('way', 'Face on the way in, °', 'angle')}
          {field('back', 'Face on the way out, °', 'angle')}
          {field('friction', 'Friction', 'count')}
          <Select
            label="Beam"
            value={shape}
            options={[
              { value: 'straight', label: 'one thickness' },
              { value: 'thins-to-half', label: 'thins to half at the tip' },
            ]}
            onChange={s => setShape(s)}
          />
          <Select
            label="Plastic"
            value={plastic}
            options={POLYMERS.map(p => ({ value: p.key, label: p.key }))}
            onChange={p => setPlastic(p)}
          />
        </FieldGrid>
        <Checkbox isSelected={often} onChange={setOften}>
          Clicked often, not once
        </Checkbox>
        <Checkbox isSelected={across} onChange={setAcross}>
          Bends its layers apart: printed upright
        </Checkbox>
      </Stack>
      <Panel aria-live="polite">
        {sound ? (
          <>
            <BeamPicture
              length={beam.length}
              thickness={beam.thickness}
              tip={shape === 'straight' ? beam.thickness : beam.thickness / 2}
              bend={read.bend!}
            />
            <StrainGauge
              strain={strain}
              often={permissibleStrain(given(polymer, 'strainOnce') / 100, true, across)}
              once={permissibleStrain(given(polymer, 'strainOnce') / 100, false, across)}
            />
            <Facts
              rows={[
                {
                  label: 'stretch at its root',
                  value: `${formatPlain(100 * strain, 2)} %`,
                  id: 'click-strain',
                },
                { label: 'it bears', value: `${formatPlain(100 * bears, 2)} %` },
                { label: 'pressed aside with', value: `${formatPlain(force, 0)} N` },
                {
                  label: 'goes in with',
                  value: `${formatPlain(matingForce(force, read.way!, read.friction!), 0)} N`,
                },
                {
                  label: 'comes out with',
                  value: Number.isFinite(out) ? `${formatPlain(out, 0)} N` : 'it does not: it holds for good',
                },
              ]}
            />
            {strain > bears ? (
              <Notice level="stop">
                It will break or stay bent. A beam of{' '}
                {formatPlain(read.length! * Math.sqrt(strain / bears), 1)} mm, or{' '}
                {formatPlain((read.thickness! * bears) / strain, 2)} mm thick, bears it
                {across ? '; lay it on the bed so that its layers run along it' : ''}.
              </Notice>
            ) : across ? (
              <Notice level="warn">
                Its layers part first: lay it on the bed so that they run along the beam.
              </Notice>
            ) : (
              <Notice level="note">
                Within what it bears. Round the root: a sharp corner breaks at half of it.
              </Notice>
            )}
          </>
        ) : (
          <p className="soft">Every number above 0, faces below 90°: the answer appears here.</p>
        )}
        <p className="soft" style={{ fontSize: 12.5, marginTop: 8 }}>
          Formulas of the plastics makers’ snap-fit guides, from memory; what prints bear is common practice,
          no source.
        </p>
      </Panel>
    </TwoColumns>
  );
}
