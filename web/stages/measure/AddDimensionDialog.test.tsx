// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { AddDimensionDialog } from './AddDimensionDialog';

afterEach(cleanup);

function shown(bench = new PageBench()) {
  const onAdded = vi.fn();
  bench.show(<AddDimensionDialog onClose={() => {}} onAdded={onAdded} />);
  return { bench, onAdded, label: screen.getByLabelText<HTMLInputElement>('What is it called?') };
}

describe('a dimension of one’s own', () => {
  test('without a name is asked for one', async () => {
    const { bench, onAdded } = shown();
    await userEvent.click(screen.getByRole('button', { name: 'Add, and read it' }));
    expect(await screen.findByText('Give it a name.')).toBeTruthy();
    expect(bench.edits).toEqual([]);
    expect(onAdded).not.toHaveBeenCalled();
  });

  test('is added by Enter, to be read', async () => {
    const { bench, onAdded, label } = shown();
    await userEvent.type(label, '  Flange width {Enter}');
    expect(bench.edits).toMatchObject([{ kind: 'add-dimension', dimension: { label: 'Flange width' } }]);
    expect(onAdded).toHaveBeenCalledWith(bench.job.dimensions.at(-1), false);
  });

  test('that is refused keeps what was typed', async () => {
    const bench = new PageBench();
    bench.refuse = 'Too many dimensions.';
    const { onAdded, label } = shown(bench);
    await userEvent.type(label, 'Flange{Enter}');
    expect(bench.said).toEqual(['Too many dimensions.']);
    expect(onAdded).not.toHaveBeenCalled();
    expect(label.value).toBe('Flange');
  });
});
