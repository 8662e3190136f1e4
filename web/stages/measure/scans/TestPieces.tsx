import { zodResolver } from '@hookform/resolvers/zod';
import { format } from 'date-fns';
import { useState } from 'react';
import { Form } from 'react-aria-components';
import { useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { PIECE_LAYS, type Scan, type ScanPiece } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import { LAY_WORDS } from '../../../../core/work/scan-piece';
import { useBench } from '../../../job/bench-context';
import { Button, Checkbox, Dialog, Select } from '../../../ui/controls';
import { FormField } from '../../../ui/FormField';
import { Panel, Row, Stack } from '../../../ui/layout';

type Lay = (typeof PIECE_LAYS)[number];

/** Thin prints of this scan's sections, and how they sat on the object. */
export function TestPieces({ scan }: { scan: Scan }) {
  const { edit } = useBench('edit');
  const [asked, setAsked] = useState<ScanPiece | null>(null);
  const pieces = scan.pieces ?? [];
  if (pieces.length === 0) return null;
  const put = (list: ScanPiece[]) => edit({ kind: 'scan', scanId: scan.id, change: { pieces: list } });
  return (
    <Panel>
      <h2>Test pieces</h2>
      <List>
        {pieces.map((piece, i) => (
          <li key={piece.id}>
            <p>
              <b>{i + 1}</b> {piece.form === 'plate' ? 'A plate' : 'A frame'}, cut {piece.where},{' '}
              <span className="number">
                {formatPlain(piece.across[0], 1)} × {formatPlain(piece.across[1], 1)} mm
              </span>
              , {format(new Date(piece.at), 'd MMM')}
            </p>
            <p className="soft">{piece.tried ? triedWords(piece.tried) : 'Not laid on the object yet.'}</p>
            <Row $gap={6}>
              <Button $small $look={piece.tried ? undefined : 'main'} onPress={() => setAsked(piece)}>
                {piece.tried ? 'It lay differently' : 'How did it lie?'}
              </Button>
              <Button $small $look="quiet" onPress={() => void put(pieces.filter(p => p.id !== piece.id))}>
                Remove
              </Button>
            </Row>
          </li>
        ))}
      </List>
      {asked ? (
        <HowItLay
          piece={asked}
          onClose={() => setAsked(null)}
          onTried={async tried => {
            if (await put(pieces.map(p => (p.id === asked.id ? { ...p, tried } : p)))) setAsked(null);
          }}
        />
      ) : null}
    </Panel>
  );
}

const number = (words: string, least: number, most: number) =>
  z
    .string()
    .transform(text => text.trim().replace(',', '.'))
    .refine(text => text === '' || (Number(text) >= least && Number(text) <= most), words);
const Way = z.object({
  lay: z.enum(PIECE_LAYS),
  play: number('From −5 to 5 mm; empty where you did not measure it.', -5, 5),
  printed: number('Calipers on the print, mm; empty where you did not.', 0.1, 5000),
});
const SIDES = ['left', 'right', 'front', 'back'] as const;
const Answer = z.object({ across: Way, along: Way, off: z.array(z.enum(SIDES)) });

function HowItLay({
  piece,
  onClose,
  onTried,
}: {
  piece: ScanPiece;
  onClose(): void;
  onTried(tried: NonNullable<ScanPiece['tried']>): Promise<void>;
}) {
  const before = piece.tried;
  const { control, handleSubmit, setValue, formState } = useForm({
    resolver: zodResolver(Answer),
    defaultValues: {
      across: written(before?.lay[0]),
      along: written(before?.lay[1]),
      off: before?.off ?? [],
    },
  });
  const { across, along, off } = useWatch({ control });
  const keep = handleSubmit(answer =>
    onTried({
      at: new Date().toISOString(),
      lay: [read(answer.across), read(answer.along)],
      off: answer.off,
    }),
  );
  const ways = [
    { name: 'across' as const, words: 'left to right', lay: across?.lay },
    { name: 'along' as const, words: 'front to back', lay: along?.lay },
  ];
  return (
    <Dialog title="How did it lie?" isOpen onClose={onClose} width={560}>
      <Form validationBehavior="aria" onSubmit={event => void keep(event)}>
        <Stack $gap={14}>
          <p className="soft">
            {piece.form === 'plate'
              ? 'The small hole is at its left. Lay it in without force.'
              : 'Lay the frame over the object without force.'}{' '}
            What calipers read on the print takes the printer out of it.
          </p>
          {ways.map(({ name, words, lay }) => (
            <Three key={name}>
              <Select<Lay>
                label={`Across, ${words}, it`}
                value={lay ?? 'slides'}
                options={PIECE_LAYS.map(value => ({ value, label: LAY_WORDS[value] }))}
                onChange={value => setValue(`${name}.lay`, value)}
              />
              <FormField control={control} name={`${name}.play`} label="Play, mm" inputMode="decimal" />
              <FormField control={control} name={`${name}.printed`} label="Print, mm" inputMode="decimal" />
            </Three>
          ))}
          <Row $gap={14} $wrap>
            <span className="soft">It stood off, or bound, at its</span>
            {SIDES.map(side => (
              <Checkbox
                key={side}
                isSelected={(off ?? []).includes(side)}
                onChange={on =>
                  setValue('off', on ? [...(off ?? []), side] : (off ?? []).filter(s => s !== side))
                }
              >
                {side}
              </Checkbox>
            ))}
          </Row>
          <Row>
            <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
              Keep it
            </Button>
            <Button $look="quiet" onPress={onClose}>
              Cancel
            </Button>
          </Row>
        </Stack>
      </Form>
    </Dialog>
  );
}

type Kept = NonNullable<ScanPiece['tried']>['lay'][0];

const written = (kept?: Kept) => ({
  lay: kept?.lay ?? ('slides' as Lay),
  play: kept?.play === undefined ? '' : String(kept.play),
  printed: kept?.printed === undefined ? '' : String(kept.printed),
});

const read = ({ lay, play, printed }: z.infer<typeof Way>): Kept => ({
  lay,
  ...(play === '' ? {} : { play: Number(play) }),
  ...(printed === '' ? {} : { printed: Number(printed) }),
});

function triedWords({ lay, off }: NonNullable<ScanPiece['tried']>): string {
  const said = (k: Kept) =>
    `${LAY_WORDS[k.lay]}${k.play === undefined ? '' : `, play ${formatPlain(k.play, 2)} mm`}`;
  const [a, b] = lay;
  const ways =
    said(a) === said(b) ? `It ${said(a)}.` : `Left to right it ${said(a)}; front to back it ${said(b)}.`;
  return off.length > 0 ? `${ways} Off at its ${off.join(' and ')}.` : ways;
}

const List = styled.ul`
  list-style: none; margin: 0; padding: 0; font-size: 14.5px;
  li { padding: 8px 0; border-top: 1px solid var(--rule); } li:first-child { border-top: 0; } p { margin: 0 0 4px; }
`;
const Three = styled.div`
  display: grid; grid-template-columns: 2fr 1fr 1fr; gap: 12px; align-items: start;
  @media (max-width: 560px) { grid-template-columns: 1fr 1fr; > :first-child { grid-column: 1 / -1; } }
`;
