// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { Scan } from '../../../../core/job/scans';
import type { Point3 } from '../../../../core/shape/vector';
import { PageBench } from '../../../../testing/page-bench';
import type { ShownFinding } from '../../../workers/scan-protocol';
import { FindingsList } from './FindingsList';

afterEach(cleanup);

const scan: Scan = { id: '1', sha256: 'a'.repeat(64), label: 'port', unit: 'mm', steps: [] };

function finding(kind: 'plane' | 'cylinder', at: Point3, diameter?: number): ShownFinding {
  return {
    kind,
    title: diameter ? 'Bore' : 'Flat face',
    sizes: diameter ? [{ of: 'diameter', kind: 'inside', value: diameter, u: 0.05 }] : [],
    coverage: diameter ? 360 : null,
    area: 500,
    rms: 0.02,
    near: at,
    axis: [0, 0, 1],
    centre: at,
    placeAsCame: at,
    shown: new Uint32Array(),
  };
}

function show(findings: readonly ShownFinding[]) {
  const onTake = vi.fn();
  const bench = new PageBench();
  bench.show(
    <FindingsList scan={scan} findings={findings} lit={findings[0]!} onLit={vi.fn()} onTake={onTake} />,
  );
  return { bench, onTake };
}

test('relations in the same words are said once, with how many', () => {
  const faces = [0, 5, 20].map(z => finding('plane', [0, 0, z]));
  show([finding('cylinder', [0, 0, 10], 24), ...faces]);
  expect(screen.getByText('Square to the flat face, 3 of them')).toBeTruthy();
  cleanup();
  show([finding('cylinder', [0, 0, 10], 24), faces[0]!]);
  expect(screen.getByText('Square to the flat face')).toBeTruthy();
});

test('bores alike within their uncertainty may be taken together', async () => {
  const { onTake } = show([finding('cylinder', [0, 0, 10], 24), finding('cylinder', [60, 0, 10], 24.06)]);
  expect(screen.getByText(/2 alike within their doubt: 24.03 mm together/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Take that' }));
  expect(onTake.mock.calls[0]![0].sizes[0].value).toBeCloseTo(24.03, 6);
});
