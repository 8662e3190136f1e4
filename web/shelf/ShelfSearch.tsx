import { useDeferredValue, useMemo, useState } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { DRAWERS, type ShelfItem, type ShelfSize } from '../../core/shelf/items';
import { type Found, searchShelf } from '../../core/shelf/search';
import { Button, Select, TextField } from '../ui/controls';
import { Empty, Panel } from '../ui/layout';
import { FONTS } from '../ui/theme';

const ALL = 'all';

interface Props {
  /** The initial query. */
  question?: string;
  /** The label of each size's button; left out where sizes are only shown. */
  use?: { label: string; onUse(item: ShelfItem, size: ShelfSize): void };
  autoFocus?: boolean;
}

/** The shelf asked by name or by number. */
export function ShelfSearch({ question = '', use, autoFocus }: Props) {
  const [text, setText] = useState(question);
  const [drawer, setDrawer] = useState(ALL);
  const asked = useDeferredValue(text);
  const found = useMemo(() => searchShelf(asked, drawer === ALL ? undefined : drawer), [asked, drawer]);
  return (
    <>
      <Bar>
        <TextField
          label="Ask by name or by number"
          value={text}
          onChange={setText}
          placeholder="22 outside 8 bore 7 wide · hole for M4 · 5.5 across flats · 13.08 and 19 turns an inch"
          autoFocus={autoFocus}
          autoComplete="off"
          type="search"
        />
        <Select
          label="Drawer"
          value={drawer}
          options={[{ value: ALL, label: 'the whole shelf' }, ...DRAWERS.map(d => ({ value: d, label: d }))]}
          onChange={d => setDrawer(d)}
        />
      </Bar>
      {found.length === 0 ? (
        <Empty title="Nothing of that kind">
          The shelf has no standard thing with all of these. Leave out a number, or say which one is the
          outside, the bore or the width.
        </Empty>
      ) : (
        <List aria-label="Found on the shelf">
          {found.map(f => (
            <Item key={f.item.id} found={f} use={use} />
          ))}
        </List>
      )}
    </>
  );
}

function Item({ found: { item, matched }, use }: { found: Found; use: Props['use'] }) {
  const hit = (size: ShelfSize) => matched.some(m => m.size === size);
  return (
    <li>
      <Panel>
        <Head>
          <h3>{item.name}</h3>
          <small>{item.family}</small>
        </Head>
        <Sizes>
          {item.sizes.map(size => (
            <div key={size.label} data-hit={hit(size) ? '' : undefined}>
              <dt>{size.label}</dt>
              <dd>
                {formatPlain(size.value, 3)} <small>mm ± {formatPlain(size.tolerance, 2)}</small>
              </dd>
              {use && size.role !== 'pitch' ? (
                <Button
                  $small
                  onPress={() => use.onUse(item, size)}
                  aria-label={`${use.label}: ${item.name}, ${size.label}`}
                >
                  {use.label}
                </Button>
              ) : null}
            </div>
          ))}
        </Sizes>
        {item.facts ? <p className="soft">{item.facts}</p> : null}
        <Source>{item.source}</Source>
      </Panel>
    </li>
  );
}

const Bar = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 220px; gap: 12px; align-items: end; margin-bottom: 14px;
  @media (max-width: 620px) { grid-template-columns: minmax(0, 1fr); }
`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0; display: grid; gap: 10px; grid-template-columns: repeat(auto-fill, minmax(310px, 1fr));
  > li { display: grid; }
  @media (max-width: 620px) { grid-template-columns: minmax(0, 1fr); }
`;
const Head = styled.div`display: flex; justify-content: space-between; gap: 10px; align-items: baseline; small { color: var(--soft); white-space: nowrap; }`;
const Sizes = styled.dl`
  margin: 6px 0 4px;
  > div { display: flex; align-items: baseline; gap: 8px; padding: 3px 6px; margin: 0 -6px; border-radius: 3px; min-height: 30px; }
  > div[data-hit] { background: var(--tint); }
  dt { flex: 1; min-width: 0; } dd { margin: 0; font: 15px ${FONTS.number}; white-space: nowrap; } small { font: 12.5px ${FONTS.text}; color: var(--soft); }
`;
const Source = styled.p`font-size: 12.5px; color: var(--soft); margin-top: 6px;`;
