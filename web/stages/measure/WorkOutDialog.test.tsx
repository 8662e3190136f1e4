// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { ownDimension } from './own-dimension';
import { WorkOutDialog } from './WorkOutDialog';
import { planOf, saidOf, sumWrongAt } from './work-out';

afterEach(cleanup);

function shown() {
  const eyes = ownDimension('Eyes', 'length', []);
  const bench = new PageBench([{ kind: 'add-dimension', dimension: eyes }]);
  const onDone = vi.fn();
  bench.show(<WorkOutDialog dimension={eyes} onClose={() => {}} onDone={onDone} />);
  const form = within(screen.getByRole('dialog', { name: 'Work out: Eyes' }));
  const choose = async (label: RegExp, option: RegExp | string) => {
    await userEvent.click(form.getByRole('button', { name: label }));
    await userEvent.click(screen.getByRole('option', { name: option }));
  };
  const save = () => userEvent.click(form.getByRole('button', { name: 'Work it out this way' }));
  return { bench, eyes, form, choose, save, onDone };
}

describe('how a dimension is worked out', () => {
  test('from new ones to read: they are added, and the first is read next', async () => {
    const { bench, save, onDone } = shown();
    await save();
    const added = bench.edits.filter(e => e.kind === 'add-dimension').slice(-3);
    expect(bench.edits.at(-1)).toMatchObject({ kind: 'derive', derived: { by: 'formula' } });
    expect(onDone).toHaveBeenCalledWith(
      added.find(e => e.dimension.label.startsWith('Eyes: '))!.dimension.id,
    );
  });

  test('a number that is none is told beside its field, with all others that are wrong, and nothing is lost', async () => {
    const { bench, form, save, onDone } = shown();
    const before = bench.edits.length;
    const [first] = form.getAllByRole('button', { name: /read it next/ });
    await userEvent.click(first!);
    await userEvent.click(screen.getByRole('option', { name: 'a number I know' }));
    await userEvent.type(form.getByLabelText('Number'), '12 x');
    await userEvent.type(form.getByLabelText('give or take'), 'some');
    await save();
    expect(await form.findByText(/How sure is it\?/)).toBeTruthy();
    expect(form.getByLabelText('Number').getAttribute('aria-invalid')).toBe('true');
    expect(document.activeElement).toBe(form.getByLabelText('Number'));
    expect(bench.edits).toHaveLength(before);
    expect(onDone).not.toHaveBeenCalled();
    await userEvent.clear(form.getByLabelText('Number'));
    await userEvent.type(form.getByLabelText('Number'), '12.5');
    await userEvent.clear(form.getByLabelText('give or take'));
    await save();
    const derived = bench.edits.at(-1);
    expect(derived).toMatchObject({ kind: 'derive' });
    // Nothing typed: give or take 0.05, a rectangle.
    const inputs = Object.values((derived as { derived: { inputs: Record<string, object> } }).derived.inputs);
    expect(inputs).toContainEqual({ of: 'number', value: 12.5, u: 0.05 / Math.sqrt(3) });
  });

  test('a sum is marked where it cannot be understood, and taken once it can', async () => {
    const { bench, form, choose, save } = shown();
    await choose(/How/, 'A sum of your own');
    await save();
    expect(await form.findByText(/Type a sum/)).toBeTruthy();
    await userEvent.type(form.getByLabelText(/^Sum/), 'rim + nothing');
    await save();
    expect((await form.findByText('nothing', { selector: 'mark' })).textContent).toBe('nothing');
    await userEvent.clear(form.getByLabelText(/^Sum/));
    await userEvent.type(form.getByLabelText(/^Sum/), 'rim / 2 + 0.4{Enter}');
    expect(bench.edits.at(-1)).toMatchObject({
      kind: 'derive',
      derived: { by: 'expression', expression: { text: 'rim / 2 + 0.4', unit: 'mm' } },
    });
  });
});

test('what was said comes back as it was, doubts too', () => {
  const eyes = ownDimension('Eyes', 'length', []);
  const said = { ...saidOf(eyes), counts: {} };
  const [slot] = Object.keys(said.slots);
  expect(slot).toBeUndefined();
  const plan = planOf(said, eyes, [eyes]);
  if (!plan.ok) throw new Error(plan.wrong[0]!.message);
  const again = saidOf({ ...eyes, derived: plan.derived });
  expect(Object.values(again.slots).map(f => f.from)).toEqual(plan.fresh.map(d => d.id));
  expect(planOf(again, eyes, [eyes, ...plan.fresh])).toMatchObject({
    ok: true,
    fresh: [],
    derived: plan.derived,
  });
});

test('a sum that begins with what nobody knows is marked at its first letter', () => {
  const eyes = ownDimension('Eyes', 'length', []);
  expect(sumWrongAt('nothing + 1', eyes, [eyes])).toBe(0);
  expect(sumWrongAt('1 + 1', eyes, [eyes])).toBeNull();
});
