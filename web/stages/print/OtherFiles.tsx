import { useState } from 'react';
import styled from 'styled-components';
import { FILE_KINDS } from '../../../core/files/part-files';
import type { Version } from '../../../core/job/history';
import { useBench } from '../../job/bench-context';
import { Select } from '../../ui/controls';

/** The same version in other forms: as designed, its other hand, or for another printer and plastic. */
export function OtherFiles({ path, version }: { path: string; version: Version }) {
  const { workshop } = useBench('workshop');
  const [whose, setWhose] = useState('designed');
  const profiles = workshop.printers.flatMap(printer =>
    workshop.materials
      .filter(m => printer.id !== version.printerId || m.id !== version.materialId)
      .map(material => ({
        value: `sizes=profile&printer=${encodeURIComponent(printer.id)}&plastic=${encodeURIComponent(material.id)}`,
        label: `for ${printer.name}, ${material.name}`,
      })),
  );
  const options = [
    { value: 'designed', label: 'as designed, for anybody’s printer' },
    { value: 'other-hand', label: 'the other hand, for this printer' },
    ...profiles,
  ];
  const chosen = options.find(o => o.value === whose) ?? options[0]!;
  const query = chosen.value.startsWith('sizes=') ? chosen.value : `sizes=${chosen.value}`;
  return (
    <Line>
      <span>Also</span>
      <div>
        <Select
          label="Sizes of the files"
          hideLabel
          value={chosen.value}
          options={options}
          onChange={setWhose}
        />
      </div>
      {FILE_KINDS.map(kind => (
        <a
          key={kind}
          aria-label={`${kind.toUpperCase()} ${chosen.label}`}
          href={`${path}/${kind}?${query}`}
          download
        >
          {kind.toUpperCase()}
        </a>
      ))}
    </Line>
  );
}

const Line = styled.div`
  display: flex; align-items: center; flex-wrap: wrap; gap: 10px; margin-top: 10px; font-size: 13.5px; color: var(--soft);
  > div { flex: 0 1 290px; min-width: 0; }
`;
