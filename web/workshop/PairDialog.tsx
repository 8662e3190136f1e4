import { useQuery } from '@tanstack/react-query';
import { QRCodeSVG } from 'qrcode.react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { PairingCode, type PhoneDoor, Withdrawn } from '../../contract/phone';
import { call, post } from '../api/client';
import { Button, Dialog, Select } from '../ui/controls';
import { Loading, Notice, Row, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';

/** One code for the next phone: as a picture for its camera, and in letters. */
export function PairDialog({ door, onClose: shut }: { door: PhoneDoor; onClose(): void }) {
  const onClose = () => {
    // A code that is no longer shown is no longer accepted; at the latest it expires.
    void call('DELETE', '/phones/codes', Withdrawn).catch(() => undefined);
    shut();
  };
  const [before] = useState(() => new Set(door.devices.map(d => d.id)));
  const [chosen, setChosen] = useState<string | null>(null);
  const [over, setOver] = useState(false);
  const code = useQuery({
    queryKey: ['pairing-code'],
    queryFn: () => post('/phones/codes', PairingCode),
    // A code is used once: it is neither fetched again automatically nor kept for the next time.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  useEffect(() => {
    if (!code.data) return;
    setOver(false);
    const timer = setTimeout(() => setOver(true), code.data.lasts * 1000);
    return () => clearTimeout(timer);
  }, [code.data]);
  const came = door.devices.find(d => !before.has(d.id));
  const reach = door.reach.find(r => r.address === chosen) ?? door.reach[0];
  const again = (
    <Button $small onPress={() => void code.refetch()}>
      A new code
    </Button>
  );
  return (
    <Dialog title="Pair a phone" isOpen onClose={onClose} width={460}>
      {came ? (
        <Stack $gap={14}>
          <Notice level="note">{came.name} is let in. It shows the job on the bench.</Notice>
          <Row>
            <Button $look="main" onPress={onClose}>
              Done
            </Button>
          </Row>
        </Stack>
      ) : !reach ? (
        <Notice level="warn">
          This computer is on no network: connect it to the one that the phone is on.
        </Notice>
      ) : code.error ? (
        <Notice level="stop" action={again}>
          {code.error.message}
        </Notice>
      ) : !code.data || code.isFetching ? (
        <Loading what="Making a code" />
      ) : over ? (
        <Notice level="warn" action={again}>
          That code’s five minutes are over.
        </Notice>
      ) : (
        <Stack $gap={12}>
          <p>
            Point the phone’s camera at this, and open what it offers. The phone must be on the same network.
          </p>
          {door.reach.length > 1 ? (
            <Select
              label="The network that the phone is on"
              value={reach.address}
              options={door.reach.map(r => ({ value: r.address, label: `${r.network}, ${r.address}` }))}
              onChange={setChosen}
            />
          ) : null}
          <Code>
            <QRCodeSVG
              value={`${reach.url}/pair#${code.data.code}`}
              size={232}
              marginSize={3}
              level="M"
              title="Code for the phone’s camera"
            />
          </Code>
          <p className="soft">
            Or open <b>{reach.url.replace('http://', '')}/pair</b> on it and type{' '}
            <Letters>{`${code.data.code.slice(0, 5)}-${code.data.code.slice(5)}`}</Letters>. Taken once, for
            five minutes. If the phone finds nothing there, this computer’s firewall may keep it out.
          </p>
        </Stack>
      )}
    </Dialog>
  );
}

const Code = styled.div`display: grid; place-items: center; svg { border-radius: 4px; }`;
const Letters = styled.b`font-family: ${FONTS.number}; white-space: nowrap; color: var(--ink);`;
