import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { WorkshopAnswer } from '../../contract/workshop';
import { type Printer, Workshop } from '../../core/job/workshop';
import { machineOf, rulesOf } from '../../core/print/of-printer';
import { parseQuantity } from '../../core/quantity/parse';
import { POLYMER_SOURCE, POLYMERS, spoolFigures } from '../../core/shelf/polymers';
import { call, get } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { Button, Checkbox, IconButton, Select, TextField } from '../ui/controls';
import { Failure, Lead, Loading, Notice, Panel, Row, Stack } from '../ui/layout';
import { TopBar } from '../ui/TopBar';
import { CalibrationPanel } from './CalibrationPanel';
import { InstrumentPanel } from './InstrumentPanel';
import { PhonesPanel } from './PhonesPanel';
import { WindowsPanel } from './WindowsPanel';

/** What the workshop owns, and the beliefs about its printers. */
export default function WorkshopPage() {
  const query = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const [savedAt, setSavedAt] = useState<number | null>(null);
  useEffect(() => {
    document.title = 'Workshop – Sagoma';
  }, []);
  return (
    <>
      <TopBar />
      {query.error ? <Failure error={query.error} retry={() => void query.refetch()} /> : null}
      {query.isPending ? <Loading what="Opening the workshop" /> : null}
      {query.data ? (
        <WorkshopForm
          key={query.data.revision}
          answer={query.data}
          saved={savedAt === query.data.revision}
          onSaved={setSavedAt}
        />
      ) : null}
    </>
  );
}

type Texts = { [path: string]: string };

interface FormProps {
  answer: WorkshopAnswer;
  /** This is what was just saved. */
  saved: boolean;
  onSaved(revision: number): void;
}

function WorkshopForm({ answer, saved, onSaved }: FormProps) {
  const client = useQueryClient();
  const [shop, setShop] = useState(answer.workshop);
  /** Number fields as typed, by path, until they are numbers. */
  const [texts, setTexts] = useState<Texts>({});
  const [error, setError] = useState<string | null>(null);
  const changed = JSON.stringify(shop) !== JSON.stringify(answer.workshop) || Object.keys(texts).length > 0;
  const checked = Workshop.safeParse(shop);
  const problems: Texts = {};
  for (const issue of checked.success ? [] : checked.error.issues)
    problems[issue.path.join('.')] ??= issue.message;
  for (const [path, text] of Object.entries(texts)) {
    const typed = parseQuantity(text, 'count');
    if (!typed.ok) problems[path] = typed.message;
  }
  const set = (change: Partial<Workshop>) => {
    setShop(now => ({ ...now, ...change }));
  };
  const save = async () => {
    setError(null);
    try {
      const next = await call('PUT', '/workshop', WorkshopAnswer, {
        revision: answer.revision,
        workshop: shop,
      });
      onSaved(next.revision);
      client.setQueryData(['workshop'], next);
      await fetchAnew(client, 'rack');
    } catch (failure) {
      setError((failure as Error).message);
    }
  };
  const number = (label: string, path: string, value: number | undefined, put: (value: number) => void) => (
    <TextField
      label={label}
      value={texts[path] ?? (value === undefined ? '' : String(value))}
      onChange={text => {
        const typed = parseQuantity(text, 'count');
        setTexts(now => {
          const { [path]: _, ...rest } = now;
          return typed.ok && String(typed.quantity.value) === text.trim() ? rest : { ...rest, [path]: text };
        });
        if (typed.ok) put(typed.quantity.value);
      }}
      onBlur={() =>
        setTexts(now =>
          parseQuantity(now[path] ?? '', 'count').ok
            ? Object.fromEntries(Object.entries(now).filter(([p]) => p !== path))
            : now,
        )
      }
      problem={problems[path]}
    />
  );
  const replace = <T extends { id: string }>(list: T[], id: string, change: Partial<T>) =>
    list.map(x => (x.id === id ? { ...x, ...change } : x));
  const bad = Object.keys(problems).length > 0;
  return (
    <Page>
      <Row $between $wrap>
        <h1>Workshop</h1>
        <Row>
          {saved && !changed ? <span className="soft">Saved.</span> : null}
          <Button $look="main" isDisabled={!changed || bad} onPress={() => void save()}>
            Save the workshop
          </Button>
        </Row>
      </Row>
      <Lead>Instruments set how sure a reading is; printers and plastics what a print will do.</Lead>
      <Stack $gap={14}>
        {error ? <Notice level="stop">{error}</Notice> : null}
        <Panel>
          <Grid>
            <TextField
              label="Name"
              value={shop.name}
              onChange={name => set({ name })}
              problem={problems.name}
            />
            <TextField
              label="Currency"
              value={shop.currency}
              onChange={currency => set({ currency })}
              problem={problems.currency}
            />
            <Select
              label="Shown in"
              value={shop.unit}
              options={[
                { value: 'mm', label: 'millimetres' },
                { value: 'in', label: 'inches' },
              ]}
              onChange={unit => set({ unit })}
            />
            {number(
              'Your hands read apart by (sd, mm)',
              'operatorRepeatability',
              shop.operatorRepeatability,
              operatorRepeatability => set({ operatorRepeatability }),
            )}
          </Grid>
          <div style={{ marginTop: 10 }}>
            <Checkbox isSelected={shop.practiceBench} onChange={practiceBench => set({ practiceBench })}>
              Offer the practice bench: a simulated object, caliper, printer and hands, to learn without
              plastic
            </Checkbox>
          </div>
        </Panel>
        <PhonesPanel />
        <InstrumentPanel
          instruments={shop.instruments}
          problems={problems}
          number={number}
          onChange={instruments => set({ instruments })}
        />
        <Panel>
          <Head
            title="Printers"
            onAdd={() =>
              set({
                printers: [
                  ...shop.printers,
                  {
                    id: ulid(),
                    name: 'New printer',
                    bed: { width: 220, depth: 220, height: 220 },
                    nozzle: 0.4,
                    lineWidth: 0.4,
                  },
                ],
              })
            }
          />
          {shop.printers.map((x, i) => (
            <Item key={x.id}>
              <TextField
                label="Name"
                value={x.name}
                onChange={name => set({ printers: replace(shop.printers, x.id, { name }) })}
                problem={problems[`printers.${i}.name`]}
              />
              {number('Bed width, mm', `printers.${i}.bed.width`, x.bed.width, width =>
                set({ printers: replace(shop.printers, x.id, { bed: { ...x.bed, width } }) }),
              )}
              {number('Bed depth, mm', `printers.${i}.bed.depth`, x.bed.depth, depth =>
                set({ printers: replace(shop.printers, x.id, { bed: { ...x.bed, depth } }) }),
              )}
              {number('Height, mm', `printers.${i}.bed.height`, x.bed.height, height =>
                set({ printers: replace(shop.printers, x.id, { bed: { ...x.bed, height } }) }),
              )}
              {number('Line width, mm', `printers.${i}.lineWidth`, x.lineWidth, lineWidth =>
                set({ printers: replace(shop.printers, x.id, { lineWidth }) }),
              )}
              {number('Speed, mm/s', `printers.${i}.speed`, machineOf(x).inner, speed =>
                set({ printers: replace(shop.printers, x.id, { speed }) }),
              )}
              {number(
                'Accel., mm/s²',
                `printers.${i}.acceleration`,
                machineOf(x).acceleration,
                acceleration => set({ printers: replace(shop.printers, x.id, { acceleration }) }),
              )}
              {number('Head beside, mm', `printers.${i}.clearance.beside`, x.clearance?.beside, beside =>
                set({ printers: replace(shop.printers, x.id, withClearance(x, { beside })) }),
              )}
              {number('Head above, mm', `printers.${i}.clearance.above`, x.clearance?.above, above =>
                set({ printers: replace(shop.printers, x.id, withClearance(x, { above })) }),
              )}
              {number('Overhang, °', `printers.${i}.overhang`, rulesOf(x).overhang, overhang =>
                set({ printers: replace(shop.printers, x.id, { overhang }) }),
              )}
              <Remove
                name={x.name}
                last={shop.printers.length === 1}
                onRemove={() => set({ printers: shop.printers.filter(y => y.id !== x.id) })}
              />
            </Item>
          ))}
          <p className="soft" style={{ fontSize: 14, marginTop: 8 }}>
            Head beside and above: what the head needs beside its nozzle, and how high a finished part may
            stand before its frame touches it. Then parts can be printed one after the other; 0 beside it
            means never.
          </p>
          <h3 style={{ marginTop: 16 }}>Before a printer is calibrated</h3>
          <p className="soft" style={{ fontSize: 14, marginBottom: 8 }}>
            How much tighter than drawn a print comes out, across the whole diameter. Common practice, no
            source; your tries correct it job by job.
          </p>
          <Grid>
            {number('Holes print small by, mm', 'belief.inside.mean', shop.belief.inside.mean, mean =>
              set({ belief: { ...shop.belief, inside: { ...shop.belief.inside, mean } } }),
            )}
            {number('give or take, mm', 'belief.inside.sd', shop.belief.inside.sd, sd =>
              set({ belief: { ...shop.belief, inside: { ...shop.belief.inside, sd } } }),
            )}
            {number('Outsides print large by, mm', 'belief.outside.mean', shop.belief.outside.mean, mean =>
              set({ belief: { ...shop.belief, outside: { ...shop.belief.outside, mean } } }),
            )}
            {number('give or take, mm ', 'belief.outside.sd', shop.belief.outside.sd, sd =>
              set({ belief: { ...shop.belief, outside: { ...shop.belief.outside, sd } } }),
            )}
            {number(
              'Print to print (sd, mm)',
              'belief.repeatability',
              shop.belief.repeatability,
              repeatability => set({ belief: { ...shop.belief, repeatability } }),
            )}
          </Grid>
        </Panel>
        <CalibrationPanel workshop={answer.workshop} unsaved={changed} />
        <WindowsPanel workshop={shop} number={number} onChange={windows => set({ windows })} />
        <Panel>
          <Head
            title="Plastics"
            onAdd={() =>
              set({
                materials: [
                  ...shop.materials,
                  {
                    id: ulid(),
                    name: 'New plastic',
                    flexible: false,
                    density: 1.24,
                    strainLimit: 0.02,
                    softensC: 55,
                    pricePerKg: 20,
                    source: 'own spool',
                  },
                ],
              })
            }
          />
          {shop.materials.map((x, i) => (
            <Item key={x.id}>
              <TextField
                label="Name"
                value={x.name}
                onChange={name => set({ materials: replace(shop.materials, x.id, { name }) })}
                problem={problems[`materials.${i}.name`]}
              />
              {number('Density, g/cm³', `materials.${i}.density`, x.density, density =>
                set({ materials: replace(shop.materials, x.id, { density }) }),
              )}
              {number('Bears stretch once, ratio', `materials.${i}.strainLimit`, x.strainLimit, strainLimit =>
                set({ materials: replace(shop.materials, x.id, { strainLimit }) }),
              )}
              {number('Softens at, °C', `materials.${i}.softensC`, x.softensC, softensC =>
                set({ materials: replace(shop.materials, x.id, { softensC }) }),
              )}
              {number(`Price, ${shop.currency}/kg`, `materials.${i}.pricePerKg`, x.pricePerKg, pricePerKg =>
                set({ materials: replace(shop.materials, x.id, { pricePerKg }) }),
              )}
              <Select
                label="Its polymer, with its figures"
                value={x.polymer ?? 'none'}
                options={[
                  { value: 'none', label: 'not known' },
                  ...POLYMERS.map(p => ({ value: p.key, label: p.key })),
                ]}
                onChange={p => {
                  const figures = spoolFigures(p);
                  // Text typed for the previous plastic does not apply to this one.
                  setTexts(now =>
                    Object.fromEntries(
                      Object.entries(now).filter(([path]) => !path.startsWith(`materials.${i}.`)),
                    ),
                  );
                  set({
                    materials: replace(
                      shop.materials,
                      x.id,
                      figures
                        ? { ...figures, polymer: p, source: POLYMER_SOURCE.obtained }
                        : { polymer: undefined },
                    ),
                  });
                }}
              />
              <Row $gap={4} style={{ paddingTop: 24 }}>
                <Checkbox
                  isSelected={x.flexible}
                  onChange={flexible => set({ materials: replace(shop.materials, x.id, { flexible }) })}
                >
                  flexible
                </Checkbox>
                <Remove
                  name={x.name}
                  last={shop.materials.length === 1}
                  onRemove={() => set({ materials: shop.materials.filter(y => y.id !== x.id) })}
                  inline
                />
              </Row>
            </Item>
          ))}
        </Panel>
        <Row $gap={22} $wrap>
          <Link to="/workshop/worth">What the workshop made</Link>
          <Link to="/workshop/lessons">What jobs taught of these printers</Link>
          <Link to="/about">What Sagoma is made of, and its licences</Link>
        </Row>
      </Stack>
    </Page>
  );
}

function Head({ title, onAdd }: { title: string; onAdd(): void }) {
  return (
    <Row $between style={{ marginBottom: 6 }}>
      <h2>{title}</h2>
      <Button $small onPress={onAdd} aria-label={`Add to ${title.toLowerCase()}`}>
        <Plus size={15} /> Add
      </Button>
    </Row>
  );
}

function Remove({
  name,
  last,
  onRemove,
  inline,
}: {
  name: string;
  last: boolean;
  onRemove(): void;
  inline?: boolean;
}) {
  return (
    <div style={inline ? undefined : { paddingTop: 25 }}>
      <IconButton aria-label={`Remove ${name}`} isDisabled={last} onPress={onRemove}>
        <Trash2 size={16} />
      </IconButton>
    </div>
  );
}

const Page = styled.main`padding: 22px 28px 60px; max-width: 1180px; margin: 0 auto;`;
const Grid = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(190px, 1fr)); gap: 12px; align-items: end;`;
const Item = styled.div`
  display: grid; grid-template-columns: minmax(150px, 1.5fr) repeat(auto-fit, minmax(96px, 1fr)); gap: 10px; padding: 8px 0; border-top: 1px solid var(--rule); align-items: start;
`;

/** Common practice, no source: assumed for the other while one of the two is typed, mm. */
const USUAL_CLEARANCE = { beside: 40, above: 25 };

/** The clearance of a printer's head; none where 0 is typed for its sides. */
function withClearance(
  { clearance }: Pick<Printer, 'clearance'>,
  change: Partial<NonNullable<Printer['clearance']>>,
): Partial<Printer> {
  const both = { ...USUAL_CLEARANCE, ...clearance, ...change };
  return { clearance: both.beside === 0 ? undefined : both };
}
