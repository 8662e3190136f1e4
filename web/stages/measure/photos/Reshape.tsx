import type { Parting } from '../../../../core/job/traces';
import type { Reparting } from '../../../../core/shape/lines-and-arcs/reparted';
import type { Point2 } from '../../../../core/shape/vector';
import { Button } from '../../../ui/controls';
import { Row } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';
import type { ShownPiece, ShownTrace } from '../../../workers/trace-protocol';

interface Props {
  shown: ShownTrace;
  lit: readonly ShownPiece[];
  /** The height of edges without a stated one, mm; null where everything is flat. */
  stands: number | null;
  onSay(said: Parting): void;
  /** The place of a cut is pressed on the photo. */
  onCut(): void;
}

/** The maker's corrections of the selected lines and arcs: straight or round, one or two, sharp or rounded. */
export function Reshape({ shown, lit, stands, onSay, onCut }: Props) {
  const [one, two, ...more] = lit;
  if (!one || more.length > 0) return null;
  const say = (as: Reparting, at: Point2) => onSay({ as, at: [at[0], at[1]] });
  if (!two) {
    const at = middleOf(one);
    const height =
      stands === null ? null : (
        <SizeField
          key={one.key}
          label="Its edge stands above the sheet by"
          value={stands}
          least={0}
          most={60}
          onCommit={value => onSay({ as: 'height', at: [at[0], at[1]], height: value })}
        />
      );
    if (one.piece === null) return height;
    return (
      <>
        <Row $gap={6} $wrap>
          <Button $small onPress={() => say(one.kind === 'side' ? 'arc' : 'line', at)}>
            {one.kind === 'side' ? 'Make it an arc' : 'Make it straight'}
          </Button>
          <Button $small onPress={onCut}>
            Cut it in two…
          </Button>
          <Button $small onPress={() => say('out', at)}>
            {one.kind === 'side' ? 'Leave it out' : 'Make it a sharp corner'}
          </Button>
        </Row>
        {height}
      </>
    );
  }
  if (!areNeighbours(shown, one, two)) return null;
  const at = jointOf(one, two);
  return (
    <Row $gap={6} $wrap>
      <Button $small onPress={() => say('join', at)}>
        Make them one
      </Button>
      <Button $small onPress={() => say('round', at)}>
        Put a rounding between them
      </Button>
    </Row>
  );
}

function areNeighbours({ pieces }: ShownTrace, a: ShownPiece, b: ShownPiece): boolean {
  if (a.loop !== b.loop || a.piece === null || b.piece === null) return false;
  const last = pieces.filter(p => p.loop === a.loop).length - 1;
  const apart = Math.abs(a.piece - b.piece);
  return apart === 1 || (apart === last && last > 1);
}

const pointAt = ({ line }: ShownPiece, i: number): Point2 => [line[2 * i]!, line[2 * i + 1]!];
const countOf = ({ line }: ShownPiece) => line.length / 2;

function middleOf(piece: ShownPiece): Point2 {
  const count = countOf(piece);
  const [p, q] = [pointAt(piece, (count - 1) >> 1), pointAt(piece, count >> 1)];
  return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
}

/** Where two pieces meet; an edge seen at its foot and one seen at its top end slightly apart in the picture. */
function jointOf(a: ShownPiece, b: ShownPiece): Point2 {
  const ends = (p: ShownPiece) => [pointAt(p, 0), pointAt(p, countOf(p) - 1)];
  const pairs = ends(a).flatMap(p => ends(b).map(q => ({ p, q, far: Math.hypot(p[0] - q[0], p[1] - q[1]) })));
  const { p, q } = pairs.reduce((best, pair) => (pair.far < best.far ? pair : best));
  return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
}
