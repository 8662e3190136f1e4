// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { MeasureStage } from './MeasureStage';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const values = (bench: PageBench) =>
  Object.fromEntries(
    bench.job.dimensions.flatMap(d => (d.readings.length > 0 ? [[d.id, d.readings.map(r => r.value)]] : [])),
  );

describe('readings typed in a row', () => {
  test('all go to the dimension on the screen, also when another one was chosen that is no longer asked for', async () => {
    const bench = new PageBench([
      {
        kind: 'parameter',
        partId: 'part-1',
        name: 'style',
        expression: { text: 'into', unit: 'none' },
      },
    ]);
    // The rim was selected while the cap went over it; for a plug in a bore nobody asks for it.
    bench.pick('rim');
    bench.show(<MeasureStage />);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Bore, inside');
    for (const text of ['24.2', '24.22', '24.18'])
      await userEvent.type(screen.getByRole('textbox', { name: /Reading/ }), `${text}{Enter}`);
    expect(values(bench)).toEqual({ bore: [24.2, 24.22, 24.18] });
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Bore, inside');
  });
});
