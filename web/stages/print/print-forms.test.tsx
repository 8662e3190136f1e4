// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { finding } from '../../../core/shape/findings/finding';
import { printed } from '../../../testing/page-bench';
import { aVersion } from '../../../testing/rows';
import { useBenchValue } from '../../job/bench-context';
import { AcceptDialog } from './AcceptDialog';
import { OnPrinter } from './OnPrinter';
import { RecordPrintForm } from './RecordPrintForm';

afterEach(cleanup);

function Newest() {
  const version = useBenchValue(b => b.job.history.versions.at(-1)!);
  return <RecordPrintForm version={version} figures={null} />;
}
const record = () => userEvent.click(screen.getByRole('button', { name: 'It is printed' }));

describe('recording a print', () => {
  test('with nothing typed leaves hours and grams to the estimate', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await record();
    expect(bench.appended).toEqual([
      {
        list: 'prints',
        body: {
          versionId: 'v1',
          pieces: 1,
          hours: null,
          grams: null,
          note: '',
          failed: null,
          hand: 'drawn',
          spool: '',
          sliced: {},
          photos: [],
          finished: null,
        },
      },
    ]);
  });

  test('with its spool and what the slicing program was told; a correction of its own is warned of', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await userEvent.click(screen.getByText(/^Spool, settings/));
    await userEvent.type(screen.getByLabelText('Spool'), 'black, the second');
    await userEvent.type(screen.getByLabelText('Nozzle, °C'), '235');
    await userEvent.type(screen.getByLabelText('Holes larger by, mm'), '0.1');
    expect(screen.getByText(/switch that correction off/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Passes'), '2.5');
    await record();
    expect(screen.getByLabelText<HTMLInputElement>('Passes').getAttribute('aria-invalid')).toBe('true');
    expect(bench.appended).toEqual([]);
    await userEvent.clear(screen.getByLabelText('Passes'));
    await userEvent.type(screen.getByLabelText('Passes'), '3');
    await record();
    expect(bench.appended).toMatchObject([
      { body: { spool: 'black, the second', sliced: { temperature: 235, holes: 0.1, passes: 3 } } },
    ]);
  });

  test('that is on the printer first: begun with its pieces, told, and taken back', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await userEvent.clear(screen.getByLabelText('Pieces'));
    await userEvent.type(screen.getByLabelText('Pieces'), '0');
    const begin = () => userEvent.click(screen.getByRole('button', { name: 'It is on the printer now' }));
    await begin();
    expect(bench.appended).toEqual([]);
    await userEvent.clear(screen.getByLabelText('Pieces'));
    await userEvent.type(screen.getByLabelText('Pieces'), '2');
    await begin();
    expect(bench.appended).toEqual([{ list: 'starts', body: { versionId: 'v1', pieces: 2, hand: 'drawn' } }]);
    cleanup();
    const version = aVersion({ id: 'v1', at: '2026-01-03T09:00:00.000Z', number: 3 });
    const start = {
      id: 's1',
      at: '2026-01-03T10:00:00.000Z',
      voided: null,
      versionId: 'v1',
      pieces: 2,
      hand: 'other' as const,
      slice: null,
      expectedHours: 2,
    };
    bench.show(<OnPrinter running={[{ start, version, ready: '2026-01-03T12:00:00.000Z' }]} />);
    expect(
      screen.getByText(/^The other hand of version 3, 2 pieces, on the printer since 3 Jan/),
    ).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Not printed after all' }));
    expect(bench.appended.at(-1)).toMatchObject({ list: 'void', body: { kind: 'start', id: 's1' } });
  });

  test('with when it was finished, never in the future', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await userEvent.click(screen.getByText(/^Spool, settings/));
    const finished = screen.getByLabelText('Finished');
    fireEvent.change(finished, { target: { value: '2999-01-01T10:00' } });
    await record();
    expect(screen.getByText(/That is still to come/)).toBeTruthy();
    expect(bench.appended).toEqual([]);
    fireEvent.change(finished, { target: { value: '2026-01-03T14:10' } });
    await record();
    expect(bench.appended[0]!.body).toMatchObject({ finished: new Date('2026-01-03T14:10').toISOString() });
  });

  test('takes what was typed', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await userEvent.type(screen.getByLabelText('Hours'), '1,5');
    await userEvent.type(screen.getByLabelText('Grams'), '12');
    await userEvent.type(screen.getByLabelText('Note'), 'brim{Enter}');
    expect(bench.appended).toMatchObject([{ body: { hours: 1.5, grams: 12, note: 'brim' } }]);
  });

  test('of several alike in one go', async () => {
    const bench = printed();
    bench.show(<Newest />);
    const pieces = screen.getByLabelText<HTMLInputElement>('Pieces');
    await userEvent.clear(pieces);
    await userEvent.type(pieces, '2.5');
    await record();
    expect(pieces.getAttribute('aria-invalid')).toBe('true');
    await userEvent.clear(pieces);
    await userEvent.type(pieces, '6');
    await record();
    expect(bench.appended).toMatchObject([{ body: { pieces: 6, hours: null } }]);
  });

  test.each(['-1', 'soon', '2001'])('hours of “%s” are refused beside the field', async typed => {
    const bench = printed();
    bench.show(<Newest />);
    const hours = screen.getByLabelText<HTMLInputElement>('Hours');
    await userEvent.type(hours, typed);
    await record();
    expect(hours.getAttribute('aria-invalid')).toBe('true');
    expect(hours.value).toBe(typed);
    expect(bench.appended).toEqual([]);
  });

  test('that came to nothing is recorded as such, and nobody is sent to try it', async () => {
    const bench = printed();
    bench.show(<Newest />);
    await userEvent.type(screen.getByLabelText('Hours'), '0.4');
    await userEvent.click(screen.getByRole('button', { name: /How did it come out/ }));
    await userEvent.click(screen.getByRole('option', { name: 'failed: it came loose from the bed' }));
    await userEvent.click(screen.getByRole('button', { name: 'It failed' }));
    expect(bench.appended).toMatchObject([{ body: { hours: 0.4, failed: 'came-loose' } }]);
    expect(bench.said[0]).toContain('says nothing about the fit');
  });

  test('that fails keeps what was typed', async () => {
    const bench = printed();
    bench.refuse = 'The server cannot be reached.';
    bench.show(<Newest />);
    await userEvent.type(screen.getByLabelText('Grams'), '12');
    await record();
    expect(bench.said).toEqual(['The server cannot be reached.']);
    expect(screen.getByLabelText<HTMLInputElement>('Grams').value).toBe('12');
  });
});

describe('overruling a stop', () => {
  const stop = finding('tiny', 'stop', { x: 1.2, y: 1, z: 1 });

  test('needs a reason', async () => {
    const onAccept = vi.fn();
    render(<AcceptDialog stops={[stop]} onAccept={onAccept} onMend={() => {}} onClose={() => {}} />);
    expect(screen.getByText(stop.message)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Make it all the same' }));
    expect(await screen.findByText('Say why it is right all the same.')).toBeTruthy();
    expect(onAccept).not.toHaveBeenCalled();
    await userEvent.type(screen.getByLabelText(/Right all the same/), ' a gauge ');
    await userEvent.click(screen.getByRole('button', { name: 'Make it all the same' }));
    expect(onAccept).toHaveBeenCalledWith('a gauge');
  });
});
