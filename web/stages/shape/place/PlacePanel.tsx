import { Plus } from 'lucide-react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { formatPlain } from '../../../../core/quantity/format';
import type { Finding } from '../../../../core/shape/findings/finding';
import type { Bounds } from '../../../../core/shape/mesh/mesh';
import { newNeighbour } from '../../../../core/work/new-neighbour';
import { useBench } from '../../../job/bench-context';
import { Button, Select } from '../../../ui/controls';
import { Panel } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';
import { useLatestList } from '../../../ui/use-latest-list';
import { Head } from '../asked';
import { FROM } from '../directions';
import { KeepOpen } from './KeepOpen';
import { NeighbourCase } from './NeighbourCase';

const NOT_SAID = 'not-said';

/** The neighbours of the part at its place, and the path on which it is brought there. */
export function PlacePanel({
  findings,
  bounds,
}: {
  findings: readonly Finding[];
  /** Of the part as it is shown; null while it is being built. */
  bounds: Bounds | null;
}) {
  const { resolved, edit, document } = useBench('resolved', 'edit', 'document');
  const { part } = resolved;
  const list = useLatestList(
    part.neighbours,
    neighbours => void edit({ kind: 'part-neighbours', partId: part.id, neighbours }),
  );
  const said = document.brief.obstacles.find(o => !part.neighbours.some(n => n.name === o.words));
  const add = () => list.add(newNeighbour(ulid(), said, bounds));
  const { goesOn } = part;
  return (
    <Panel style={{ marginTop: 12 }} aria-label="Where it goes">
      <Head>
        <h2>Where it goes</h2>
        {part.neighbours.length === 0 ? (
          <p>
            {said
              ? `The brief says “${said.words}”${said.clear === null ? '' : `, ${formatPlain(said.clear)} mm clear`}: it begins on the right${said.clear === null ? '' : ' at that distance'}; say where it stands, and the part is kept off it.`
              : 'A rail, a lid, a hose beside it: the part is kept off them, where it sits and on its way there.'}
          </p>
        ) : null}
        <Button $small onPress={add} isDisabled={part.neighbours.length >= 20}>
          <Plus size={15} /> Add a neighbour
        </Button>
      </Head>
      {part.neighbours.map(n => (
        <NeighbourCase
          key={n.id}
          neighbour={n}
          findings={findings.filter(f => f.neighbour === n.id)}
          onChange={change => list.change(n.id, change)}
          onRemove={() => list.remove(n.id)}
        />
      ))}
      {part.neighbours.length > 0 ? (
        <Path>
          <Select
            label="The part is brought on"
            value={goesOn?.from ?? NOT_SAID}
            options={[{ value: NOT_SAID, label: 'not said: only its place is looked at' }, ...FROM]}
            onChange={from =>
              void edit({
                kind: 'goes-on',
                partId: part.id,
                goesOn: from === NOT_SAID ? null : { ...(goesOn ?? { distance: 60 }), from },
              })
            }
          />
          {goesOn ? (
            <SizeField
              label="Straight over the last"
              value={goesOn.distance}
              least={1}
              most={2000}
              onCommit={distance =>
                void edit({ kind: 'goes-on', partId: part.id, goesOn: { ...goesOn, distance } })
              }
            />
          ) : null}
          {goesOn ? (
            <Select
              label="And before that"
              value={goesOn.before?.from ?? NOT_SAID}
              options={[{ value: NOT_SAID, label: 'straight on, no corner' }, ...FROM]}
              onChange={from => {
                const { before, ...last } = goesOn;
                void edit({
                  kind: 'goes-on',
                  partId: part.id,
                  goesOn:
                    from === NOT_SAID
                      ? last
                      : { ...last, before: { distance: before?.distance ?? 60, from } },
                });
              }}
            />
          ) : null}
          {goesOn?.before ? (
            <SizeField
              label="Over the first"
              value={goesOn.before.distance}
              least={1}
              most={2000}
              onCommit={distance =>
                void edit({
                  kind: 'goes-on',
                  partId: part.id,
                  goesOn: { ...goesOn, before: { ...goesOn.before!, distance } },
                })
              }
            />
          ) : null}
        </Path>
      ) : null}
      <KeepOpen findings={findings} bounds={bounds} />
    </Panel>
  );
}

const Path = styled.div`
  border-top: 1px solid var(--rule); margin-top: 10px; padding-top: 10px; display: grid; grid-template-columns: minmax(220px, 340px) 200px; gap: 14px;
`;
