import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format, formatDistanceToNow } from 'date-fns';
import { Smartphone } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { type Device, DeviceName, PhoneDoor } from '../../contract/phone';
import { call, get } from '../api/client';
import { useStream } from '../api/events';
import { fetchAnew } from '../api/fetch-anew';
import { CommittedField } from '../ui/CommittedField';
import { Button, Checkbox } from '../ui/controls';
import { Failure, Notice, Panel, Row, Stack } from '../ui/layout';
import { PairDialog } from './PairDialog';

/** Phones as the workshop's second screen: whether any is let in, and which. */
export function PhonesPanel() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: ['phones'], queryFn: () => get('/phones', PhoneDoor) });
  const [problem, setProblem] = useState<string | null>(null);
  const [pairing, setPairing] = useState(false);
  useStream(event => {
    if (event.kind === 'phones' || event.kind === 'back') void fetchAnew(client, 'phones');
  });
  const ask = async (method: string, path: string, body?: object) => {
    setProblem(null);
    try {
      client.setQueryData(['phones'], await call(method, path, PhoneDoor, body));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  if (query.error) return <Failure error={query.error} retry={() => void query.refetch()} />;
  const door = query.data;
  return (
    <Panel>
      <Row $between $wrap style={{ marginBottom: 6 }}>
        <h2>Phones</h2>
        {door?.open ? (
          <Button $small onPress={() => setPairing(true)}>
            <Smartphone size={15} /> Pair a phone
          </Button>
        ) : null}
      </Row>
      <p className="soft" style={{ fontSize: 14, marginBottom: 8 }}>
        A phone on the same network is the bench’s second screen: it opens the job that lies there, and takes
        photos, readings and verdicts. Each is paired once, by a code from this page; nobody else is let in.
        It is off until you switch it on, and ends with Sagoma.
      </p>
      <Stack $gap={10}>
        <Checkbox
          isSelected={door?.open ?? false}
          isDisabled={!door}
          onChange={open => void ask('PUT', '/phones', { open })}
        >
          Let paired phones in
        </Checkbox>
        {problem ? <Notice level="stop">{problem}</Notice> : null}
        {door?.open && door.reach.length === 0 ? (
          <Notice level="warn">
            This computer is on no network: connect it to the one that the phone is on. Nothing needs to be
            restarted.
          </Notice>
        ) : null}
        {door?.open ? (
          <Notice level="note">
            What phones and this computer send each other is not encrypted: do this on your own network, not
            on one that strangers share.
          </Notice>
        ) : null}
      </Stack>
      {(door?.devices ?? []).map(device => (
        <DeviceRow
          key={device.id}
          device={device}
          onName={name => void ask('PUT', `/phones/devices/${device.id}`, { name })}
          onSendAway={() => void ask('DELETE', `/phones/devices/${device.id}`)}
        />
      ))}
      {door && pairing ? <PairDialog door={door} onClose={() => setPairing(false)} /> : null}
    </Panel>
  );
}

interface RowProps {
  device: Device;
  onName(name: string): void;
  onSendAway(): void;
}

function DeviceRow({ device, onName, onSendAway }: RowProps) {
  const { name, pairedAt, usedAt } = device;
  return (
    <Item>
      <CommittedField
        label="Name"
        value={name}
        check={text => DeviceName.shape.name.safeParse(text).error?.issues[0]?.message}
        onCommit={text => onName(text.trim())}
      />
      <p className="soft">
        Paired {format(new Date(pairedAt), 'd MMM yyyy, HH:mm')}.{' '}
        {usedAt ? `Last used ${formatDistanceToNow(new Date(usedAt))} ago.` : 'Not used yet.'}
      </p>
      <Button $small $look="danger" onPress={onSendAway} aria-label={`Remove ${name}`}>
        Remove it
      </Button>
    </Item>
  );
}

const Item = styled.div`
  display: grid; grid-template-columns: minmax(150px, 220px) minmax(0, 1fr) auto; gap: 14px; padding: 8px 0; margin-top: 8px;
  border-top: 1px solid var(--rule); align-items: end;
  p { font-size: 14px; padding-bottom: 9px; }
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
`;
