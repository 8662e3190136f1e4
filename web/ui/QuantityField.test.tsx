// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Expression } from '../../core/quantity/expression';
import { parseQuantity } from '../../core/quantity/parse';
import { QuantityField } from './QuantityField';

afterEach(cleanup);

const START: Expression = { text: '3', unit: 'mm' };

function shown(more: { onReset?(): void; provisional?: boolean } = {}) {
  const commits: string[] = [];
  function Field() {
    const [kept, keep] = useState(START);
    const [draft, setDraft] = useState<Expression | null>(null);
    const now = draft ?? kept;
    const read = parseQuantity(now.text, 'length');
    return (
      <QuantityField
        {...more}
        label="Wall"
        kind="length"
        expression={kept}
        understood={read.ok ? `${read.quantity.value} mm` : ''}
        problem={read.ok ? undefined : read.message}
        onDraft={setDraft}
        onCommit={expression => {
          commits.push(expression.text);
          keep(expression);
        }}
      />
    );
  }
  render(<Field />);
  return { commits, field: screen.getByLabelText<HTMLInputElement>('Wall') };
}

describe('a number or an expression', () => {
  test('Enter commits once, and says what was understood', async () => {
    const { commits, field } = shown();
    await userEvent.clear(field);
    await userEvent.type(field, '1/8 in{Enter}');
    expect(commits).toEqual(['1/8 in']);
    expect(field.value).toBe('1/8 in');
    expect(screen.getByText(/3\.175 mm/)).toBeTruthy();
  });

  test('leaving the field commits, and a pause does', async () => {
    const { commits, field } = shown();
    await userEvent.clear(field);
    await userEvent.type(field, '4');
    await userEvent.tab();
    expect(commits).toEqual(['4']);
    await userEvent.clear(field);
    await userEvent.type(field, '5');
    await vi.waitFor(() => expect(commits).toEqual(['4', '5']), { timeout: 3000 });
  });

  test('what is no number stays where it was typed, with what to do, and is not committed', async () => {
    const { commits, field } = shown();
    await userEvent.clear(field);
    await userEvent.type(field, '3 apples{Enter}');
    expect(field.value).toBe('3 apples');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(commits).toEqual([]);
  });

  test('an empty field waits for a number; Escape leaves it as it was', async () => {
    const { commits, field } = shown();
    await userEvent.clear(field);
    expect(screen.getByText(/Type a number, or press Escape/)).toBeTruthy();
    await userEvent.keyboard('{Enter}');
    expect(commits).toEqual([]);
    await userEvent.keyboard('{Escape}');
    expect(field.value).toBe('3');
    expect(screen.queryByText(/Type a number/)).toBeNull();
  });
});
