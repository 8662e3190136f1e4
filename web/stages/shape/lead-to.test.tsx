// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeAll, describe, expect, test, vi } from 'vitest';
import { finding } from '../../../core/shape/findings/finding';
import { leadsTo, useLead, useLeadTo } from './lead-to';

const scrolled = vi.fn();
beforeAll(() => {
  // The test page has no layout and knows neither.
  Element.prototype.scrollIntoView = scrolled;
  vi.stubGlobal('CSS', { escape: (text: string) => text });
});
afterEach(() => {
  cleanup();
  scrolled.mockClear();
});

function Page() {
  useLeadTo(useLead());
  return (
    <details>
      <summary>More</summary>
      <div data-about="wall" style={{ display: 'contents' }}>
        <div>
          <input aria-label="Wall" />
        </div>
      </div>
    </details>
  );
}
const arrive = (state?: object) =>
  render(
    <MemoryRouter initialEntries={[{ pathname: '/jobs/1/shape', state }]}>
      <Page />
    </MemoryRouter>,
  );

describe('who is led to a number', () => {
  test('finds it in sight, its fold opened, ready to type in', () => {
    arrive({ leadTo: 'wall' });
    expect(document.activeElement).toBe(screen.getByLabelText('Wall'));
    expect(document.querySelector('details')!.open).toBe(true);
    expect(scrolled).toHaveBeenCalledOnce();
  });
  test.each([undefined, {}, { leadTo: 'nothing of that name' }])(
    'who just comes, or asks for what is not there, is left alone (%o)',
    state => {
      arrive(state);
      expect(document.activeElement).toBe(document.body);
      expect(document.querySelector('details')!.open).toBe(false);
      expect(scrolled).not.toHaveBeenCalled();
    },
  );
});

test('a finding leads to its number, else to the load, the neighbour or the addition that it is about', () => {
  const tiny = (about: object) => finding('tiny', 'stop', { x: 1, y: 1, z: 1 }, about);
  expect(leadsTo(tiny({ parameter: 'wall', addition: 'hole1' }))).toBe('wall');
  expect(leadsTo(tiny({ remedy: { label: 'Make it 2', parameter: 'wall', text: '2' } }))).toBe('wall');
  expect(leadsTo(tiny({ load: 'l1' }))).toBe('l1');
  expect(leadsTo(tiny({ neighbour: 'n1' }))).toBe('n1');
  expect(leadsTo(tiny({ addition: 'hole1' }))).toBe('hole1');
  expect(leadsTo(tiny({}))).toBeUndefined();
});
