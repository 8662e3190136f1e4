import { useState } from 'react';
import { useBench } from '../../job/bench-context';
import { Select } from '../../ui/controls';
import type { AskedPart } from '../../workers/solid-protocol';

const NOW = 'now';

/** What a picture or a scan is compared with: a version of the part, or the current part. */
export function useComparedPart(onChange: () => void) {
  const { job, resolved } = useBench('job', 'resolved');
  const versions = job.history.versions.filter(v => v.partId === resolved.part.id);
  const [of, setOf] = useState<string>(versions.at(-1)?.id ?? NOW);
  const version = versions.find(v => v.id === of);
  const spec: AskedPart = version
    ? { recipe: version.recipe, additions: version.additions, parameters: version.parameters }
    : resolved.solidSpec;
  const choice = (
    <div style={{ width: 200 }}>
      <Select
        label="What it is compared with"
        hideLabel
        value={of}
        options={[
          ...versions.map(v => ({ value: v.id, label: `version ${v.number}` })),
          { value: NOW, label: 'the part as it is now' },
        ]}
        onChange={next => {
          setOf(next);
          onChange();
        }}
      />
    </div>
  );
  return { spec, choice };
}

export const NOT_BUILT = 'The part cannot be built from these numbers: see Shape.';
