// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test } from 'vitest';
import { formatLength, formatPercent } from '../../core/quantity/format';
import { PageBench } from '../../testing/page-bench';
import { readEdit } from '../../testing/read-edit';
import { Ledger } from './Ledger';

afterEach(cleanup);

const READ = [31.7, 31.72, 31.68].map(value => readEdit('rim', value));

describe('the ledger', () => {
  test('without a reading says where the number will come from, and promises no chance', () => {
    new PageBench().show(<Ledger open onClose={() => {}} />);
    expect(screen.getByText(/its number comes with the first reading/)).toBeTruthy();
    expect(screen.queryByText(/all of it right/)).toBeNull();
  });

  test('shows the number and the chance that the part is built with', () => {
    const bench = new PageBench(READ);
    bench.show(<Ledger open onClose={() => {}} />);
    const [mate] = bench.part.ledger.mates;
    expect(screen.getByRole('button', { name: /Skirt over rim/ }).textContent).toContain(
      formatLength(mate!.model, 'mm'),
    );
    expect(screen.getByText(formatPercent(bench.part.ledger.pAllRight!))).toBeTruthy();
  });

  test('a mate opens to its chain, whose steps add up to the number, and closes again', async () => {
    const bench = new PageBench(READ);
    bench.show(<Ledger open onClose={() => {}} />);
    const line = screen.getByRole('button', { name: /Skirt over rim/ });
    expect(line.getAttribute('aria-expanded')).toBe('false');
    await userEvent.click(line);
    expect(line.getAttribute('aria-expanded')).toBe('true');
    const [mate] = bench.part.ledger.mates;
    const sum = mate!.steps.reduce((all, step) => all + step.amount, 0);
    expect(sum).toBeCloseTo(mate!.model, 2);
    await userEvent.click(line);
    expect(line.getAttribute('aria-expanded')).toBe('false');
  });

  test('one reading of a dimension that must fit looks shaky, three do not', () => {
    const shaky = (edits: typeof READ) => {
      const { container } = new PageBench(edits).show(<Ledger open onClose={() => {}} />);
      const found = container.querySelectorAll('[data-shaky]').length;
      cleanup();
      return found;
    };
    expect(shaky(READ.slice(0, 1))).toBeGreaterThan(shaky(READ));
  });

  test('a number of the maker’s own stands in it as such, with the ledger’s beside it and a way back', async () => {
    const own = { text: '28', unit: 'mm' as const };
    const bench = new PageBench([
      ...READ,
      { kind: 'parameter', partId: 'part-1', name: 'skirtDiameter', expression: own },
    ]);
    bench.show(<Ledger open onClose={() => {}} />);
    await userEvent.click(screen.getByRole('button', { name: /Skirt over rim/ }));
    expect(screen.getAllByText('your own number').length).toBeGreaterThan(0);
    expect(screen.getAllByText(/under 1 %/).length).toBeGreaterThan(0);
    const { proposed } = bench.part.ledger.mates[0]!;
    await userEvent.click(screen.getByRole('button', { name: `Draw ${formatLength(proposed, 'mm')}` }));
    expect(bench.part.ledger.mates[0]!.model).toBe(proposed);
    expect(screen.queryByText('your own number')).toBeNull();
  });
});
