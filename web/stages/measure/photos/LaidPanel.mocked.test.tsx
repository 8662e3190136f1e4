// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { PageBench } from '../../../../testing/page-bench';
import type { ShownLaid, ShownPiece, ShownTrace } from '../../../workers/trace-protocol';
import { LaidPanel } from './LaidPanel';

// The kernels are not asked here: what was laid is given.
vi.mock('../../../solid/kernel-worker', () => ({
  kernelLine: () => ({ ask: () => Promise.resolve({ ok: true, shadows: {} }) }),
}));
afterEach(cleanup);

const piece = (key: string): ShownPiece => ({
  key,
  loop: Number(key.split('.')[0]),
  piece: key.endsWith('round') ? null : Number(key.split('.')[1]),
  kind: key.endsWith('round') ? 'round' : 'side',
  hole: key.startsWith('1'),
  line: new Float32Array(),
  words: '',
});
const shown: ShownTrace = {
  pieces: ['0.0', '0.1', '1.round'].map(piece),
  size: [40, 30],
  unseen: [],
  clean: true,
  advice: [],
  lost: 0,
  offers: [],
  sigma: 1,
  outline: '',
  holes: [],
  others: 0,
};
const laid: ShownLaid = {
  side: 'bottom',
  rings: [],
  spots: { at: new Float32Array(), off: new Float32Array() },
  p95: 0.2,
  overlap: 0.97,
  mean: { value: -0.05, u: 0.04 },
  pieces: [
    { key: '0.0', kind: 'side', hole: false, off: { value: -0.12, u: 0.05 }, most: -0.3 },
    { key: '0.1', kind: 'side', hole: false, off: { value: 0.03, u: 0.05 }, most: 0.06 },
    { key: '1.round', kind: 'round', hole: true, off: { value: 0.15, u: 0.04 }, most: 0.16 },
  ],
  missing: [],
};

function show(change: Partial<ShownLaid> = {}) {
  const onPick = vi.fn();
  new PageBench([], 'profile-part').show(
    <LaidPanel
      shown={shown}
      laid={{ ...laid, ...change }}
      ask={() => Promise.resolve(null)}
      onLaid={() => {}}
      onPick={onPick}
    />,
  );
  return onPick;
}

describe('where a part differs from what was photographed', () => {
  test('the largest comes first, rounds told across; what is within its doubt is not listed', async () => {
    const onPick = show();
    expect(screen.getByText(/The part, from its underside, is drawn over it/)).toBeTruthy();
    expect(screen.getByText(/−0.05 ± 0.04 mm/)).toBeTruthy();
    expect(screen.getAllByRole('listitem').map(item => item.textContent)).toEqual([
      // Material stands 0.15 into it all round.
      'Hole narrower by 0.3 ± 0.08 mm',
      'Side falls short by 0.12 ± 0.05 mm, at most 0.3',
    ]);
    expect(screen.getByText(/All else agrees within its doubt/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /^Hole narrower/ }));
    expect(onPick).toHaveBeenCalledWith(shown.pieces[2]);
  });

  test('a wider hole, and a disc that is too large', () => {
    const round = { kind: 'round' as const, most: 0 };
    show({
      pieces: [
        { ...round, key: '1.round', hole: true, off: { value: -0.1, u: 0.02 } },
        { ...round, key: '0.round', hole: false, off: { value: 0.05, u: 0.02 } },
      ],
    });
    expect(screen.getAllByRole('listitem').map(item => item.textContent)).toEqual([
      'Hole wider by 0.2 ± 0.04 mm',
      'Disc wider by 0.1 ± 0.04 mm',
    ]);
  });

  test('nothing off, something without counterpart, something that does not show', () => {
    show({
      pieces: [
        { key: '0.0', kind: 'side', hole: false, off: { value: 0.01, u: 0.05 }, most: 0.02 },
        { key: '1.round', kind: 'round', hole: true, off: null, most: 0 },
      ],
      missing: [{ at: [0, 0], width: 14 }],
    });
    expect(screen.getByText(/Nowhere does it differ by more than its doubt/)).toBeTruthy();
    expect(screen.getByText(/One edge of it has no line of the part near/)).toBeTruthy();
    expect(screen.getByText(/One line of the part \(14 mm wide\) the photo does not show/)).toBeTruthy();
  });

  test('another thing altogether is said', () => {
    show({ overlap: 0.31 });
    expect(screen.getByText(/It does not lie on this part: 31 % of it/)).toBeTruthy();
  });

  test('what was taken off meanwhile is not laid again by an answer that comes late', async () => {
    const onLaid = vi.fn();
    let answer: (reply: never) => void = () => {};
    const late = new Promise<never>(resolve => {
      answer = resolve;
    });
    const ask = vi.fn(() => late);
    new PageBench([], 'profile-part').show(
      <LaidPanel shown={shown} laid={laid} ask={ask} onLaid={onLaid} onPick={() => {}} />,
    );
    await userEvent.click(screen.getByRole('button', { name: 'Move the part' }));
    await vi.waitFor(() => expect(ask).toHaveBeenCalled());
    await userEvent.click(screen.getByRole('button', { name: 'Take it off' }));
    answer({ ok: true, laid } as never);
    await new Promise(resolve => setTimeout(resolve, 20));
    expect(onLaid.mock.calls).toEqual([[null]]);
  });

  test('how far it is moved by hand is a number', async () => {
    show();
    await userEvent.clear(screen.getByLabelText('Turned by, °'));
    await userEvent.type(screen.getByLabelText('Turned by, °'), '400');
    await userEvent.click(screen.getByRole('button', { name: 'Move the part' }));
    expect(screen.getByText('Between -360 and 360.')).toBeTruthy();
  });
});
