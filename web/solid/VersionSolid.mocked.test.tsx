// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';

const answers = vi.hoisted(() => ({ next: [] as (object | null | Error)[], asked: 0 }));
vi.mock('./kernel-worker', () => ({
  kernelLine: () => ({
    ask: async () => {
      answers.asked++;
      const answer = answers.next.shift();
      if (answer instanceof Error) throw answer;
      return answer;
    },
  }),
}));
vi.mock('./SolidView', () => ({ default: () => <p>the solid</p> }));

const { VersionSolid } = await import('./VersionSolid');
afterEach(() => {
  cleanup();
  answers.asked = 0;
});
const show = (...next: (object | null | Error)[]) => {
  answers.next = next;
  render(
    <VersionSolid version={{ id: 'v1', recipe: 'round-cap', additions: [], parameters: {} }} marked={[]} />,
  );
};

test('asked again where another solid of the page took its turn', async () => {
  show(null, null, { ok: true, solid: {} });
  expect(await screen.findByText('the solid')).toBeTruthy();
  expect(answers.asked).toBe(3);
});

test('what cannot be built says why, and so does a kernel that broke', async () => {
  show({ ok: false, findings: [{ message: 'It tapers to nothing.' }] });
  expect(await screen.findByText('It tapers to nothing.')).toBeTruthy();
  cleanup();
  show(new Error('The geometry kernel could not start.'));
  expect(await screen.findByText('The geometry kernel could not start.')).toBeTruthy();
});
