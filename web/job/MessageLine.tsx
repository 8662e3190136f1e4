import { useCallback, useEffect, useState } from 'react';
import styled from 'styled-components';
import { useConnected } from '../api/events';
import { Button } from '../ui/controls';
import { Notice } from '../ui/layout';
import { useBench } from './bench-context';

export interface Message {
  words: string;
  /** News from elsewhere: it stays until it is read, like a refusal. */
  level: 'note' | 'news' | 'stop';
  at: number;
}

const READ_FOR = 6000;

export function useMessage() {
  const [message, setMessage] = useState<Message | null>(null);
  const say = useCallback(
    (words: string, level: Message['level'] = 'note') => setMessage({ words, level, at: Date.now() }),
    [],
  );
  const clear = useCallback(() => setMessage(null), []);
  return { message, say, clear };
}

/** What just happened or was refused, and whether the server is reachable. */
export function MessageLine({ message, onClose }: { message: Message | null; onClose(): void }) {
  const { state } = useBench('state');
  const connected = useConnected();
  useEffect(() => {
    if (message?.level !== 'note') return;
    const timer = setTimeout(onClose, READ_FOR);
    return () => clearTimeout(timer);
  }, [message, onClose]);
  const away = state.offline || !connected;
  return (
    <Line aria-live="polite">
      {away ? (
        <Notice level="warn">
          {state.trouble ?? 'The server does not answer.'}{' '}
          {state.pending.length > 0
            ? `${state.pending.length} edit${state.pending.length > 1 ? 's are' : ' is'} kept here and will be sent`
            : 'Nothing is lost'}
          ; trying again…
        </Notice>
      ) : null}
      {message ? (
        <Notice
          level={message.level === 'stop' ? 'stop' : 'note'}
          action={
            <Button $small $look="quiet" onPress={onClose}>
              Close
            </Button>
          }
        >
          {message.words}
        </Notice>
      ) : null}
    </Line>
  );
}

const Line = styled.div`
  position: fixed; left: 112px; bottom: 16px; z-index: 20; display: flex; flex-direction: column; gap: 8px; max-width: min(640px, 90vw);
  > div { box-shadow: 0 2px 10px rgb(0 0 0 / 18%); align-items: center; }
  @media (max-width: 900px) { left: 12px; right: 12px; }
`;
