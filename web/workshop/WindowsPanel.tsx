import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { DEFAULT_WINDOWS, type StandardWant } from '../../core/fit/wants';
import { windowFor } from '../../core/job/workshop';
import { Button } from '../ui/controls';
import { Panel, Row } from '../ui/layout';
import { NumberOfGroup } from './NumberField';
import { useWorkshopForm } from './workshop-form';

/** What this workshop means by each want; new mates use it, existing choices keep theirs. */
export function WindowsPanel() {
  const { control, setValue } = useWorkshopForm();
  const windows = useWatch({ control, name: 'windows' });
  /** Counts the ways back: what was half typed goes with the windows it was typed for. */
  const [round, setRound] = useState(0);
  const names = Object.keys(DEFAULT_WINDOWS) as StandardWant[];
  const own = Object.keys(windows ?? {}).length > 0;
  return (
    <Panel>
      <Row $between $wrap>
        <h2>How it should feel, in numbers</h2>
        {own ? (
          <Button
            $small
            onPress={() => {
              setValue('windows', undefined);
              setRound(n => n + 1);
            }}
          >
            Back to common practice
          </Button>
        ) : null}
      </Row>
      <p className="soft" style={{ fontSize: 14, margin: '2px 0 8px' }}>
        Clearance across the whole width, mm, for things up to 50 mm; stretch as a ratio. Common practice, no
        source: put in what your hands mean.
      </p>
      <Grid key={round}>
        {names.map(name => {
          const window = windowFor({ windows }, name);
          const put = (end: 'min' | 'max') => (value: number | string) =>
            setValue('windows', { ...windows, [name]: { ...window, [end]: value } });
          const unit = window.unit === 'strain' ? 'ratio' : 'mm';
          return (
            <div key={name}>
              <NumberOfGroup
                label={`${name}, least (${unit})`}
                name={`windows.${name}.min`}
                usual={window.min}
                put={put('min')}
              />
              <NumberOfGroup
                label={`${name}, most (${unit})`}
                name={`windows.${name}.max`}
                usual={window.max}
                put={put('max')}
              />
            </div>
          );
        })}
      </Grid>
    </Panel>
  );
}

const Grid = styled.div`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(250px, 1fr)); gap: 10px 22px;
  > div { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; align-items: end; }
`;
