import type { QueryClient } from '@tanstack/react-query';

/**
 * Something changed: all that is shown of it is fetched anew. A first answer that is still on its way was asked for
 * before the change, and `invalidateQueries` alone would take it for the new one.
 */
export async function fetchAnew(client: QueryClient, about: string): Promise<void> {
  const queryKey = [about];
  await client.cancelQueries({ queryKey });
  await client.invalidateQueries({ queryKey });
}
