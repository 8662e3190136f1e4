// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { CommittedField } from './CommittedField';

afterEach(cleanup);

function shown() {
  const sent: string[] = [];
  const { unmount } = render(
    <CommittedField
      label="Note"
      value="old"
      onCommit={text => sent.push(text)}
      check={text => (text.length > 10 ? 'At most 10 characters.' : undefined)}
    />,
  );
  return { sent, unmount, field: screen.getByLabelText<HTMLInputElement>('Note') };
}

describe('text that is kept while it is written', () => {
  test('is sent once its writer leaves the field, and nothing where nothing was typed', async () => {
    const { sent, field } = shown();
    await userEvent.click(field);
    await userEvent.tab();
    expect(sent).toEqual([]);
    await userEvent.type(field, 'er');
    await userEvent.tab();
    expect(sent).toEqual(['older']);
  });

  test('is sent after a pause', async () => {
    const { sent, field } = shown();
    await userEvent.type(field, 'er');
    expect(sent).toEqual([]);
    await vi.waitFor(() => expect(sent).toEqual(['older']), { timeout: 3000 });
  });

  test('is sent when its screen is left in the middle of a word', async () => {
    const { sent, field, unmount } = shown();
    await userEvent.type(field, 'er');
    unmount();
    expect(sent).toEqual(['older']);
  });

  test('that is wrong stays in the field with what is wrong, and is not sent', async () => {
    const { sent, field, unmount } = shown();
    await userEvent.type(field, ' and longer');
    await userEvent.tab();
    expect(screen.getByText('At most 10 characters.')).toBeTruthy();
    expect(field.value).toBe('old and longer');
    unmount();
    expect(sent).toEqual([]);
  });
});
