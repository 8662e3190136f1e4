// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PageBench, printed } from '../../testing/page-bench';
import { readEdit } from '../../testing/read-edit';
import { PhoneReadings } from './PhoneReadings';
import { PhoneVerdict } from './PhoneVerdict';

beforeEach(() => {
  sessionStorage.clear();
  window.scrollTo = () => {};
});
afterEach(cleanup);

const title = () => screen.getByRole('heading', { level: 1 }).textContent;
const field = () => screen.getByRole('textbox', { name: /Reading/ });

describe('readings with one thumb', () => {
  test('one dimension after the other, kept by a press, and back again', async () => {
    const bench = new PageBench();
    bench.show(<PhoneReadings />);
    expect(title()).toBe('Rim, outside');
    expect(screen.getByRole('button', { name: 'Back' })).toHaveProperty('disabled', true);
    await userEvent.type(field(), '31.7');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(bench.edits).toMatchObject([
      { kind: 'add-reading', dimensionId: 'rim', reading: { value: 31.7 } },
    ]);
    // Shown where there are thumbs.
    await userEvent.click(screen.getByRole('button', { name: /^Next:/, hidden: true }));
    expect(title()).toBe('Rim height');
    await userEvent.click(screen.getByRole('button', { name: 'Back' }));
    expect(title()).toBe('Rim, outside');
  });

  test('there is no shelf to walk to, and what is wrong stays in the field', async () => {
    const bench = new PageBench();
    bench.show(<PhoneReadings />);
    expect(screen.queryByRole('button', { name: 'From the shelf' })).toBeNull();
    await userEvent.type(field(), '-3');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(field()).toHaveProperty('value', '-3');
    expect(screen.getByText(/A size is above 0/)).toBeTruthy();
    expect(bench.edits).toEqual([]);
  });

  test('when all is read it says where the work goes on', () => {
    const readings = [31.7, 31.72, 31.68].map(value => readEdit('rim', value));
    const bench = new PageBench([...readings, readEdit('rim_height', 14)]);
    bench.show(<PhoneReadings />);
    expect(screen.getByText(/All read/)).toBeTruthy();
  });
});

describe('the verdict with the object in the other hand', () => {
  test('before anything is printed there is nothing to say', () => {
    new PageBench().show(<PhoneVerdict />);
    expect(screen.getByText('Nothing to try yet')).toBeTruthy();
  });

  test('a word for each surface is recorded', async () => {
    const bench = printed();
    bench.show(<PhoneVerdict />);
    expect(title()).toBe('How does version 1 sit?');
    await userEvent.click(screen.getByRole('radio', { name: 'tight' }));
    await userEvent.click(screen.getByRole('button', { name: 'Record the try' }));
    expect(bench.appended).toMatchObject([{ list: 'tries', body: { printId: 'p1' } }]);
    expect(JSON.stringify(bench.appended[0]!.body)).toContain('"verdict":"tight"');
  });

  test('what cannot be sent stays in the form', async () => {
    const bench = printed();
    bench.show(<PhoneVerdict />);
    await userEvent.click(screen.getByRole('radio', { name: 'tight' }));
    bench.refuse = 'No connection.';
    await userEvent.click(screen.getByRole('button', { name: 'Record the try' }));
    expect(bench.said).toContain('No connection.');
    expect(screen.getByRole('radio', { name: 'tight' }).getAttribute('aria-checked')).toBe('true');
  });
});
