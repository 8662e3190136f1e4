import { lazy, Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import { ownNumberOf } from '../../../core/job/document';
import { formatLength, formatPlain } from '../../../core/quantity/format';
import type { Press } from '../../../core/shape/additions/pressed';
import type { DrawDimension } from '../../../core/shape/drawing/drawing';
import type { Span } from '../../../core/shape/span/span';
import { DrawingView } from '../../drawing/DrawingView';
import { useBench } from '../../job/bench-context';
import { RemedyNotice } from '../../job/RemedyNotice';
import { useSolid } from '../../solid/use-solid';
import { Button } from '../../ui/controls';
import { Lead, Panel, Stack } from '../../ui/layout';
import { PrintTakes } from '../print/poses/PrintTakes';
import { AdditionsPanel } from './additions/AdditionsPanel';
import { nameFace } from './additions/name-face';
import { type Picking, PickingContext } from './additions/picking';
import { LoadsPanel } from './bears/LoadsPanel';
import { ComparePanel } from './ComparePanel';
import { chosenMate } from './chosen-mate';
import { FamilyPanel } from './FamilyPanel';
import { useLead, useLeadTo } from './lead-to';
import { WhatMovesThis } from './movers/WhatMovesThis';
import { ParameterField } from './ParameterField';
import { PlacePanel } from './place/PlacePanel';
import { TogetherPanel } from './together/TogetherPanel';
import { arrowOf, useArrow } from './use-arrow';
import { useCompare } from './use-compare';

const SolidView = lazy(() => import('../../solid/SolidView'));

/** The solid, its drawing, and the few numbers that make it. */
export function ShapeStage() {
  const { job, resolved, selected, select, unit } = useBench('job', 'resolved', 'selected', 'select', 'unit');
  const { part, recipe, parameters, provisional, demands } = resolved;
  useLeadTo(useLead());
  const context = resolved.checkContext;
  const solid = useSolid(resolved.part, parameters, context);
  const mate = chosenMate(resolved, selected);
  const lit = mate?.ours.surface ?? selected;
  /** On the drawing the maker's own mates appear as their numbers. */
  const litNumber = (mate && ownNumberOf(mate)) ?? lit;
  const value = (d: DrawDimension) => formatLength(resolved.drawnSize(d), unit);
  const { versions } = resolved;
  const [against, setAgainst] = useState<string | null>(null);
  const chosen = versions.find(v => v.id === against) ?? null;
  const compared = useCompare(resolved.part, parameters, chosen);
  const shown = recipe.parameters.filter(p => !p.addition && (p.shown?.(parameters) ?? true));
  const findings = [...resolved.unsaid, ...(solid.findings ?? [])];
  const [asking, setAsking] = useState<{ who: string; then: (place: string) => void } | null>(null);
  const [naming, setNaming] = useState<string | null>(null);
  const [probing, setProbing] = useState(false);
  const [probed, setProbed] = useState<readonly Press[]>([]);
  const [spanned, setSpanned] = useState<Span | null>(null);
  const chosenArrow = useArrow(solid.solid?.bounds, probing || probed.length > 0);
  const arrow = useMemo(() => (spanned ? arrowOf(spanned) : chosenArrow), [spanned, chosenArrow]);
  const picking: Picking = {
    naming,
    asking: asking?.who ?? null,
    ask: (who, then) => setAsking(who && then ? { who, then } : null),
  };
  // An addition's findings are shown beside it.
  const general = findings.filter(
    f => !part.additions.some(a => a.id === f.addition) && !f.load && !f.neighbour,
  );
  const surroundings = useMemo(
    () => ({
      neighbours: demands.neighbours.map(n => ({
        ...n,
        hit: (solid.findings ?? []).some(f => f.neighbour === n.id),
      })),
      keepOpen: demands.keepOpen.map(z => ({
        ...z,
        hit: (solid.findings ?? []).some(f => f.neighbour === z.id && f.level === 'stop'),
      })),
      goesOn: demands.neighbours.length > 0 ? demands.goesOn : null,
      loads: solid.loads ?? [],
    }),
    [demands, solid.findings, solid.loads],
  );
  const { drawing } = resolved;
  const more = shown.filter(p => p.group === 'more');
  return (
    <PickingContext value={picking}>
      <h1>{recipe.title}</h1>
      <Lead>
        {provisional.size > 0
          ? 'Some sizes are examples until they are measured; the part follows as the readings come in.'
          : 'Built from the ledger. Change a number and the solid follows while you type.'}
      </Lead>
      <Views data-stays>
        <Stage>
          {solid.refused ? (
            <Refused>
              {solid.refused.map((f, i) => (
                <RemedyNotice key={i} level={f.level} remedy={f.remedy}>
                  {f.message}
                </RemedyNotice>
              ))}
            </Refused>
          ) : null}
          {solid.solid ? (
            <Suspense fallback={<Waiting>Setting up the view…</Waiting>}>
              <SolidView
                solid={solid.solid}
                lit={lit}
                onPick={select}
                tools={
                  <Button
                    $small
                    $look="quiet"
                    aria-pressed={probing}
                    onPress={() => {
                      setProbing(!probing);
                      setProbed([]);
                    }}
                  >
                    {probing ? 'Never mind' : 'What moves this?'}
                  </Button>
                }
                says={
                  probing
                    ? probed.length > 0
                      ? 'Press the other face.'
                      : 'Press the place that should move.'
                    : undefined
                }
                arrow={arrow}
                pressed={probed}
                onFace={
                  probing
                    ? press => {
                        setProbing(false);
                        setProbed([...probed, press]);
                      }
                    : asking
                      ? press => {
                          setAsking(null);
                          setNaming(asking.who);
                          void nameFace(part, parameters, press).then(place => {
                            setNaming(null);
                            asking.then(place);
                          });
                          backTo(asking.who);
                        }
                      : undefined
                }
                busy={solid.busy || solid.refused !== null}
                change={compared.change}
                surroundings={surroundings}
              />
            </Suspense>
          ) : solid.refused ? null : (
            <Waiting role="status">Starting the geometry kernel…</Waiting>
          )}
          {solid.solid && !solid.refused ? (
            <Facts
              className="number"
              data-testid="solid-facts"
              data-volume={solid.solid.volume}
              data-busy={solid.busy}
            >
              {solid.busy ? 'building… · ' : solid.findings === null ? 'checking… · ' : ''}
              {formatPlain(solid.solid.volume / 1000, 2)} cm³ ·{' '}
              {[0, 1, 2]
                .map(i => formatPlain(solid.solid!.bounds.max[i]! - solid.solid!.bounds.min[i]!, 1))
                .join(' × ')}{' '}
              mm
              <PrintTakes ready={solid.findings !== null} />
            </Facts>
          ) : null}
        </Stage>
        <Panel style={{ padding: 0, overflow: 'hidden' }}>
          <DrawingView
            drawing={drawing}
            valueFor={value}
            lit={litNumber}
            onPick={select}
            height={300}
            caption={drawing.title}
          />
          <Takeaway>
            Drawing as
            {(['svg', 'dxf', 'pdf'] as const).map(kind => (
              <a key={kind} href={`/api/jobs/${job.id}/drawing.${kind}`} download>
                {kind.toUpperCase()}
              </a>
            ))}
          </Takeaway>
        </Panel>
      </Views>
      {probed.length > 0 ? (
        <div style={{ marginTop: 12 }}>
          <WhatMovesThis
            presses={probed}
            onClose={() => setProbed([])}
            onFound={setSpanned}
            onSecond={() => {
              setProbing(true);
              document.querySelector('[data-stays]')?.scrollIntoView({ block: 'nearest' });
            }}
          />
        </div>
      ) : null}
      {general.length > 0 && !solid.refused ? (
        <Stack $gap={6} style={{ marginTop: 12 }}>
          {general.map((f, i) => (
            <RemedyNotice key={i} level={f.level} remedy={f.remedy}>
              {f.message}
            </RemedyNotice>
          ))}
        </Stack>
      ) : null}
      <Panel style={{ marginTop: 12 }} aria-label="Sizes">
        <Fields>
          {shown
            .filter(p => p.group === 'main')
            .map(p => (
              <ParameterField key={p.name} spec={p} />
            ))}
        </Fields>
        {more.length > 0 ? (
          <details>
            <summary>More sizes</summary>
            <Fields>
              {more.map(p => (
                <ParameterField key={p.name} spec={p} />
              ))}
            </Fields>
          </details>
        ) : null}
        <FamilyPanel />
      </Panel>
      {versions.length > 0 ? (
        <ComparePanel
          versions={versions}
          chosen={chosen}
          onChoose={setAgainst}
          recipe={recipe}
          parameters={parameters}
          compared={compared}
        />
      ) : null}
      <AdditionsPanel findings={[...(solid.refused ?? []), ...findings]} />
      <LoadsPanel results={solid.loads} findings={findings} />
      <PlacePanel findings={findings} bounds={solid.solid?.bounds ?? null} />
      <TogetherPanel />
    </PickingContext>
  );
}

/** A maker who pressed on the solid gets back to the previous place. */
const backTo = (who: string) =>
  document.querySelector(`[data-about="${CSS.escape(who)}"]`)?.scrollIntoView({ block: 'center' });

/** Stays visible while what is below it is edited, on any screen that is high enough for both. */
const Views = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.45fr) minmax(0, 1fr); gap: 12px;
  @media (min-width: 1101px) and (min-height: 700px) {
    position: sticky; top: -18px; z-index: 4; padding-bottom: 10px; background: var(--paper);
  }
  @media (max-width: 1100px) { display: contents; }
`;
/** In a narrow window only the solid stays, and the drawing scrolls with the rest. */
const Stage = styled.div`
  position: relative; min-height: min(332px, 42vh); border: 1px solid var(--rule); border-radius: 6px; background: var(--sheet);
  @media (max-width: 1100px) { display: flex; flex-direction: column; margin-bottom: 12px; > * { flex: 1; } }
  @media (max-width: 1100px) and (min-height: 700px) {
    position: sticky; top: -18px; z-index: 4; min-height: 0; height: min(300px, 36vh); box-shadow: 0 6px 0 var(--paper);
  }
`;
const Takeaway = styled.p`display: flex; gap: 12px; justify-content: flex-end; font-size: 13px; color: var(--soft); padding: 4px 12px 6px; border-top: 1px solid var(--rule);`;
const Waiting = styled.p`position: absolute; inset: 0; display: flex; align-items: center; justify-content: center; color: var(--soft);`;
const Refused = styled.div`position: absolute; inset: 10px 10px auto; z-index: 2; display: flex; flex-direction: column; gap: 6px;`;
const Facts = styled.p`position: absolute; right: 8px; top: 6px; padding: 1px 4px; border-radius: 3px; background: var(--sheet); font-size: 12.5px; color: var(--soft);`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(178px, 1fr)); gap: 12px 16px;
  + details, + details + details { margin-top: 14px; }
  summary + & { margin-top: 12px; }
`;
