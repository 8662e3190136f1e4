import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { z } from 'zod';
import type { Rack } from '../../contract/rack';
import { call } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { Button } from '../ui/controls';
import { Notice, Row } from '../ui/layout';

/** A job that cannot be read: its data can be exported, and then it can be removed. */
export function UnreadableJob({ job }: { job: Rack['unreadable'][number] }) {
  const client = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [problem, setProblem] = useState('');
  const remove = async () => {
    try {
      await call('DELETE', `/jobs/${job.id}`, z.object({ removed: z.literal(true) }));
      await fetchAnew(client, 'rack');
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <div style={{ marginBottom: 8 }}>
      <Notice
        level="stop"
        action={
          <Row $gap={8} $wrap>
            <a href={`/api/jobs/${job.id}/raw`} download>
              Export it raw
            </a>
            {asking ? (
              <>
                <Button $small $look="danger" onPress={() => void remove()}>
                  Remove it for good
                </Button>
                <Button $small onPress={() => setAsking(false)}>
                  Leave it
                </Button>
              </>
            ) : (
              <Button $small $look="quiet" onPress={() => setAsking(true)}>
                Remove it
              </Button>
            )}
          </Row>
        }
      >
        {job.number} · {job.title} cannot be read: {job.why} The other jobs are as they were. {problem}
      </Notice>
    </div>
  );
}
