// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { readEdit } from '../../../testing/read-edit';
import { useBenchValue } from '../../job/bench-context';
import { ReadingPanel } from './ReadingPanel';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const onNext = vi.fn(() => true);

function Rim() {
  const state = useBenchValue(b => b.resolved.dimensions.get('rim')!);
  return <ReadingPanel state={state} onNext={onNext} onShelf={() => {}} />;
}

const field = () => screen.getByRole<HTMLInputElement>('textbox');
const readings = (bench: PageBench) => bench.job.dimensions.find(d => d.id === 'rim')!.readings;

describe('a reading', () => {
  test('is kept by Enter, and the field waits for the next one', async () => {
    const bench = new PageBench();
    bench.show(<Rim />);
    await userEvent.type(field(), '31.7{Enter}');
    expect(readings(bench)).toMatchObject([
      { value: 31.7, text: '31.7', unit: 'mm', via: 'typed', source: 'seat' },
    ]);
    expect(field().value).toBe('');
    expect(screen.getByRole('heading', { name: 'Reading 2' })).toBeTruthy();
  });

  test('in inches says what it is in millimetres before it is kept', async () => {
    const bench = new PageBench();
    bench.show(<Rim />);
    await userEvent.type(field(), '1 1/4 in');
    expect(screen.getByText(/= 31\.75 mm/)).toBeTruthy();
    await userEvent.keyboard('{Enter}');
    expect(readings(bench)).toMatchObject([{ value: 31.75, unit: 'in' }]);
  });

  test.each([
    ['abc', /./],
    ['0', /above 0/],
    ['-3', /above 0/],
    ['9000', /check the unit/],
  ])('“%s” is refused beside the field and stays in it', async (typed, words) => {
    const bench = new PageBench();
    bench.show(<Rim />);
    await userEvent.type(field(), `${typed}{Enter}`);
    expect(readings(bench)).toEqual([]);
    expect(field().value).toBe(typed);
    expect(field().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById('reading-help')!.textContent).toMatch(words);
  });

  test('nothing typed is said too', async () => {
    new PageBench().show(<Rim />);
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(screen.getByText(/Nothing typed yet/)).toBeTruthy();
  });

  test('that looks like a slip is asked about: kept as it is, put right, or left out', async () => {
    const bench = new PageBench([readEdit('rim', 31.7)]);
    bench.show(<Rim />);
    await userEvent.type(field(), '317{Enter}');
    expect(readings(bench)).toHaveLength(1);
    await userEvent.click(screen.getByRole('button', { name: 'It was 31.7' }));
    expect(readings(bench).map(r => r.value)).toEqual([31.7, 31.7]);
    await userEvent.type(field(), '317{Enter}');
    await userEvent.click(screen.getByRole('button', { name: 'Leave it out' }));
    expect(readings(bench)).toHaveLength(2);
    await userEvent.type(field(), '317{Enter}');
    await userEvent.keyboard('{Enter}');
    expect(readings(bench).map(r => r.value)).toEqual([31.7, 31.7, 317]);
  });

  test('is taken back by Backspace in an empty field; Tab goes on', async () => {
    const bench = new PageBench([readEdit('rim', 31.7), readEdit('rim', 31.72)]);
    bench.show(<Rim />);
    await userEvent.click(field());
    await userEvent.keyboard('{Backspace}');
    expect(readings(bench).map(r => r.value)).toEqual([31.7]);
    await userEvent.keyboard('{Tab}');
    expect(onNext).toHaveBeenCalledWith(1);
  });

  test('that the server refuses stays in the field', async () => {
    const bench = new PageBench();
    bench.refuse = 'The job was deleted.';
    bench.show(<Rim />);
    await userEvent.type(field(), '31.7{Enter}');
    expect(field().value).toBe('31.7');
    expect(bench.said).toEqual(['The job was deleted.']);
  });

  test('typed away from the field lands in it', async () => {
    new PageBench().show(<Rim />);
    field().blur();
    await userEvent.keyboard('3');
    expect(field().value).toBe('3');
    expect(document.activeElement).toBe(field());
  });
});

describe('what was measured', () => {
  const source = () => screen.getByRole('button', { name: /What was measured/ }).textContent;

  test('starts from what this dimension’s last reading was of, whatever another job was', () => {
    sessionStorage.setItem('sagoma.source', 'said');
    new PageBench([readEdit('rim', 31.7, { source: 'old-part' })]).show(<Rim />);
    expect(source()).toContain('the old part');
  });

  test('else from the job’s last reading; a label is one dimension’s own', () => {
    const old = readEdit('bore', 24, { source: 'old-part', at: '2026-01-01T10:00:00.000Z' });
    const label = readEdit('rim_height', 14, { source: 'said', at: '2026-01-01T11:00:00.000Z' });
    new PageBench([old, label]).show(<Rim />);
    expect(source()).toContain('the old part');
  });

  test('of a new job is the seat', () => {
    new PageBench().show(<Rim />);
    expect(source()).toContain('the seat itself');
  });
});
