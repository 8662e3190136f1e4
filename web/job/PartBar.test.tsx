// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test } from 'vitest';
import { PageBench } from '../../testing/page-bench';
import { PartBar } from './PartBar';

afterEach(cleanup);

const SECOND = { kind: 'add-part', id: 'part-2', name: 'Plug', recipe: 'bush', share: false } as const;
const names = (bench: PageBench) => bench.job.parts.map(p => p.name);

describe('the parts of a job', () => {
  test('one part is no choice: only Shape offers another', () => {
    const { container } = new PageBench().show(<PartBar onShape={false} />);
    expect(container.textContent).toBe('');
    cleanup();
    new PageBench().show(<PartBar onShape />);
    expect(screen.getByRole('button', { name: 'Add a part' })).toBeTruthy();
    expect(screen.queryByRole('radiogroup', { name: 'Part' })).toBeNull();
  });

  test('a part gets another name by Enter; without a name nothing is kept', async () => {
    const bench = new PageBench([SECOND]);
    bench.show(<PartBar onShape />);
    await userEvent.click(screen.getByRole('button', { name: `Rename ${names(bench)[0]}` }));
    const field = screen.getByLabelText<HTMLInputElement>('Name');
    await userEvent.clear(field);
    await userEvent.keyboard('{Enter}');
    expect(await screen.findByText('Give it a name.')).toBeTruthy();
    expect(document.activeElement).toBe(field);
    await userEvent.type(field, 'Lid{Enter}');
    expect(names(bench)).toEqual(['Lid', 'Plug']);
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  test('a part that is removed leaves the other', async () => {
    const bench = new PageBench([SECOND]);
    bench.show(<PartBar onShape />);
    await userEvent.click(screen.getByRole('button', { name: `Remove ${names(bench)[0]}` }));
    expect(names(bench)).toEqual(['Plug']);
  });

  test('a part is added under its recipe’s name, or under a name of its own', async () => {
    const bench = new PageBench();
    bench.show(<PartBar onShape />);
    await userEvent.click(screen.getByRole('button', { name: 'Add a part' }));
    await userEvent.type(await screen.findByLabelText('Its name'), 'Other half{Enter}');
    expect(names(bench)[1]).toBe('Other half');
    expect(bench.edits).toMatchObject([{ kind: 'add-part', recipe: 'round-cap', share: true }]);
  });
});
