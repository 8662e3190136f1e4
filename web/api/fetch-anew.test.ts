import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { fetchAnew } from './fetch-anew';

test('what changed while it was first asked for is asked for again', async () => {
  const client = new QueryClient();
  const answers: ((answer: string) => void)[] = [];
  const observer = new QueryObserver(client, {
    queryKey: ['rack'],
    queryFn: () => new Promise<string>(resolve => answers.push(resolve)),
  });
  const stop = observer.subscribe(() => {});
  expect(answers).toHaveLength(1);
  const done = fetchAnew(client, 'rack');
  await expect.poll(() => answers.length).toBe(2);
  // The earlier answer arrives first, but is already outdated.
  answers[0]!('before');
  answers[1]!('after');
  await done;
  expect(observer.getCurrentResult().data).toBe('after');
  stop();
});
