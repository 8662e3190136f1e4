import styled from 'styled-components';
import { DEFAULT_WINDOWS, type StandardWant } from '../../core/fit/wants';
import { type Workshop, windowFor } from '../../core/job/workshop';
import { Button } from '../ui/controls';
import { Panel, Row } from '../ui/layout';

interface Props {
  workshop: Workshop;
  number(label: string, path: string, value: number, put: (value: number) => void): React.ReactNode;
  onChange(windows: Workshop['windows']): void;
}

/** What this workshop means by each want; new mates use it, existing choices keep theirs. */
export function WindowsPanel({ workshop, number, onChange }: Props) {
  const names = Object.keys(DEFAULT_WINDOWS) as StandardWant[];
  const own = Object.keys(workshop.windows ?? {}).length > 0;
  return (
    <Panel>
      <Row $between $wrap>
        <h2>How it should feel, in numbers</h2>
        {own ? (
          <Button $small onPress={() => onChange(undefined)}>
            Back to common practice
          </Button>
        ) : null}
      </Row>
      <p className="soft" style={{ fontSize: 14, margin: '2px 0 8px' }}>
        Clearance across the whole width, mm, for things up to 50 mm; stretch as a ratio. Common practice, no
        source: put in what your hands mean.
      </p>
      <Grid>
        {names.map(name => {
          const window = windowFor(workshop, name);
          const put = (change: object) => onChange({ ...workshop.windows, [name]: { ...window, ...change } });
          const unit = window.unit === 'strain' ? 'ratio' : 'mm';
          return (
            <div key={name}>
              {number(`${name}, least (${unit})`, `windows.${name}.min`, window.min, min => put({ min }))}
              {number(`${name}, most (${unit})`, `windows.${name}.max`, window.max, max => put({ max }))}
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
