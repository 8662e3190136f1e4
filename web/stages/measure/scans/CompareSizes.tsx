import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { Refusal, type Scan } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import type { SizeCheck } from '../../../../core/work/scan-trust';
import { Button } from '../../../ui/controls';
import { FormField } from '../../../ui/FormField';
import { Notice, Panel, Row } from '../../../ui/layout';

/** A factor this close to the settled one adds nothing new. */
const SAME = 0.0005;

export type Trust = NonNullable<Scan['trust']>;

interface Props {
  check: SizeCheck;
  trust: Trust | undefined;
  /** Its name in a table's head: Scan, Photo. */
  what: string;
  /** The extra uncertainty of sizes until it is settled; null where there is none. */
  meanwhile: string | null;
  onSettle(trust: Trust | null): void;
  /** Why it is left out. */
  refused: string | undefined;
  onRefuse(why: string | null): void;
}

/** The true scale of a scan or a photo, from sizes that were also read with calipers. */
export function CompareSizes({
  check,
  trust,
  what,
  meanwhile,
  onSettle: settle,
  refused,
  onRefuse: refuse,
}: Props) {
  const [asking, setAsking] = useState(false);
  const isSettled =
    trust !== undefined &&
    (check.factor === null || Math.abs(trust.factor - check.factor) < SAME || trust.factor === 1);
  if (refused)
    return (
      <Panel>
        <h2>It is left out</h2>
        <Notice level="stop">Nothing that was read off it counts: {refused}</Notice>
        <Row style={{ marginTop: 8 }}>
          <Button $small onPress={() => refuse(null)}>
            Use it again
          </Button>
        </Row>
      </Panel>
    );
  return (
    <Panel>
      <h2>Is it as large as the object?</h2>
      <Notice level={check.verdict === 'true' ? 'note' : 'warn'}>{check.words}</Notice>
      {check.pairs.length > 0 ? (
        <Sizes>
          <thead>
            <tr>
              <th>Size, mm</th>
              <th>By hand</th>
              <th>{what}</th>
              <th>{what} is</th>
            </tr>
          </thead>
          <tbody>
            {check.pairs.map(p => (
              <tr key={p.key}>
                <td>{p.label}</td>
                <td className="number">{formatPlain(p.read, 2)}</td>
                <td className="number">{formatPlain(p.scanned, 2)}</td>
                <td className="number">{signed(p.scanned - p.read)}</td>
              </tr>
            ))}
          </tbody>
        </Sizes>
      ) : null}
      {trust ? (
        <p className="soft">
          {trust.factor === 1
            ? `Taken as it is, ± ${formatPlain(200 * trust.u, 2)} %.`
            : `All that is read off it is multiplied by ${trust.factor.toFixed(4)}, ± ${formatPlain(200 * trust.u, 2)} %.`}
        </p>
      ) : check.factor === null || meanwhile === null ? null : (
        <p className="soft">{meanwhile}</p>
      )}
      <Row $gap={8} $wrap>
        {check.factor !== null && !isSettled ? (
          <>
            <Button
              $small
              $look={check.verdict === 'off' ? 'main' : undefined}
              onPress={() =>
                settle({ factor: Number(check.factor!.toFixed(5)), u: Number(check.u.toFixed(5)) })
              }
            >
              Correct it by {signed(100 * (check.factor - 1))} %
            </Button>
            {check.verdict === 'true' ? (
              <Button
                $small
                $look="main"
                onPress={() => settle({ factor: 1, u: Number(check.u.toFixed(5)) })}
              >
                Take it as it is
              </Button>
            ) : null}
          </>
        ) : null}
        {trust ? (
          <Button $small $look="quiet" onPress={() => settle(null)}>
            Check it again
          </Button>
        ) : null}
        {asking ? null : (
          <Button $small $look="quiet" onPress={() => setAsking(true)}>
            Leave it out…
          </Button>
        )}
      </Row>
      {asking ? (
        <WhyRefused
          onClose={() => setAsking(false)}
          onRefuse={why => {
            setAsking(false);
            refuse(why);
          }}
        />
      ) : null}
    </Panel>
  );
}

const Why = z.object({ why: Refusal });

function WhyRefused({ onClose, onRefuse }: { onClose(): void; onRefuse(why: string): void }) {
  const { control, handleSubmit } = useForm({ resolver: zodResolver(Why), defaultValues: { why: '' } });
  return (
    <form style={{ marginTop: 8 }} onSubmit={event => void handleSubmit(({ why }) => onRefuse(why))(event)}>
      <FormField
        control={control}
        name="why"
        label="Why not?"
        placeholder="it slipped on the table half-way"
        autoFocus
      />
      <Row $gap={8} style={{ marginTop: 8 }}>
        <Button $small $look="danger" type="submit">
          Count nothing read off it
        </Button>
        <Button $small $look="quiet" onPress={onClose}>
          Cancel
        </Button>
      </Row>
    </form>
  );
}

const signed = (x: number) =>
  Math.abs(x) < 0.005 ? '0' : `${x < 0 ? '−' : '+'}${formatPlain(Math.abs(x), 2)}`;

const Sizes = styled.table`
  width: 100%; border-collapse: collapse; font-size: 14px; margin: 8px 0;
  th { text-align: right; font-weight: 500; color: var(--soft); } th:first-child, td:first-child { text-align: left; }
  th, td { padding: 2px 0 2px 10px; } td { text-align: right; border-top: 1px solid var(--rule); vertical-align: top; } th:first-child, td:first-child { padding-left: 0; } td:first-child { overflow-wrap: anywhere; }
`;
