import type { QueryClient } from '@tanstack/react-query';

/**
 * After a change, everything shown of it is fetched again. A first fetch still in progress was sent before the change,
 * and `invalidateQueries` alone would accept its answer.
 */
export async function fetchAnew(client: QueryClient, about: string): Promise<void> {
  const queryKey = [about];
  await client.cancelQueries({ queryKey });
  await client.invalidateQueries({ queryKey });
}
