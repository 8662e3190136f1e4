// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { aPrint, aTry, aVersion } from '../../../testing/rows';
import { VersionTree } from './VersionTree';

afterEach(cleanup);

const version = (number: number, follows: string | null, more: object = {}) =>
  aVersion({ id: `v${number}`, at: `2026-01-0${number}T00:00:00.000Z`, number, follows, ...more });

test('one line of versions needs no tree', () => {
  new PageBench().show(<VersionTree versions={[version(1, null), version(2, 'v1')]} />);
  expect(screen.queryByRole('list')).toBeNull();
});

test('a branch is told with its plastic, where it comes from and what was noted of it', () => {
  const all = [version(1, null), version(2, 'v1'), version(3, 'v1', { materialId: 'tpu' })];
  const bench = new PageBench();
  for (const row of all) bench.happen({ kind: 'version', row });
  const at = '2026-01-05T00:00:00.000Z';
  bench.happen({
    kind: 'remark',
    row: { id: 'm1', at, voided: null, versionId: 'v3', text: 'the flexible one' },
  });
  bench.happen({ kind: 'print', row: aPrint({ id: 'p1', at, versionId: 'v3' }) });
  bench.happen({
    kind: 'try',
    row: aTry({ id: 't1', at, printId: 'p1', mates: { skirt: { verdict: 'right' } } }),
  });
  bench.show(<VersionTree versions={all} />);
  const rows = screen.getAllByRole('listitem').map(item => item.textContent);
  expect(rows).toEqual([
    'Version 3TPU 95A, from version 1, the flexible one',
    'Version 2PLA',
    'Version 1PLA',
  ]);
});
