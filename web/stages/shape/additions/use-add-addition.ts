import { kindOf } from '../../../../core/shape/additions';
import { type AdditionKindName, nameForNew } from '../../../../core/shape/additions/addition';
import { freeName } from '../../../../core/shape/additions/free-name';
import { useBench } from '../../../job/bench-context';

/** Adds an addition of a kind to the part. @returns its id; null where it was refused, which the page reports */
export function useAddAddition(): (kind: AdditionKindName) => Promise<string | null> {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part } = resolved;
  return async name => {
    const kind = kindOf(name);
    const id = freeName(kind.short, part.additions);
    const done = await edit({
      kind: 'add-addition',
      partId: part.id,
      addition: { id, kind: kind.kind, name: nameForNew(kind.title, part.additions), on: true },
    });
    return done ? id : null;
  };
}
