import { formatPlain } from '../quantity/format';
import type { JobDocument } from './document';
import type { Edit } from './edits';

/** An edit in the maker's words, for the activity log and the undo button. */
export function wordsFor(edit: Edit, document: JobDocument): string {
  const dimension = (id: string) => document.dimensions.find(d => d.id === id)?.label ?? 'a dimension';
  const thread = (id: string) => document.threads.find(t => t.id === id)?.label ?? 'a thread';
  const addition = (partId: string, id: string) =>
    `“${document.parts.find(p => p.id === partId)?.additions.find(a => a.id === id)?.name ?? 'an addition'}”`;
  const mate = (id: string) => document.mates.find(m => m.id === id)?.name ?? 'a mate';
  const reading = (dimensionId: string, id: string) =>
    document.dimensions.find(d => d.id === dimensionId)?.readings.find(r => r.id === id)?.text ?? '';
  switch (edit.kind) {
    case 'rename':
      return `Renamed to “${edit.title}”`;
    case 'describe-object':
      return 'Described the object';
    case 'brief':
      return 'Changed the brief';
    case 'add-reading':
      return `Read ${formatPlain(edit.reading.value, 4)} on ${dimension(edit.dimensionId)}`;
    case 'take-back-reading':
      return `Took back ${reading(edit.dimensionId, edit.readingId)} on ${dimension(edit.dimensionId)}`;
    case 'strike-reading':
      return edit.reason === null
        ? `Counted ${reading(edit.dimensionId, edit.readingId)} again on ${dimension(edit.dimensionId)}`
        : `Struck out ${reading(edit.dimensionId, edit.readingId)} on ${dimension(edit.dimensionId)}: ${edit.reason}`;
    case 'add-dimension':
      return `Added the dimension ${edit.dimension.label}`;
    case 'add-readings':
      return `Took in ${edit.readings.length} ${edit.readings.length === 1 ? 'reading' : 'readings'}`;
    case 'describe-dimension':
      return edit.correctJaws === undefined
        ? `Described ${dimension(edit.dimensionId)}`
        : `${edit.correctJaws ? 'Corrected' : 'Left'} the inside jaws on ${dimension(edit.dimensionId)}`;
    case 'derive':
      return edit.derived
        ? `Let ${dimension(edit.dimensionId)} be worked out`
        : `Let ${dimension(edit.dimensionId)} be read again`;
    case 'add-thread':
      return `Added the thread ${edit.thread.label}`;
    case 'thread':
      return edit.change.standard
        ? `Took ${thread(edit.threadId)} for ${edit.change.standard === 'odd' ? 'an odd thread' : edit.change.standard}`
        : `Described ${thread(edit.threadId)}`;
    case 'remove-thread':
      return `Removed ${thread(edit.threadId)}`;
    case 'add-photo':
      return `Added the photo ${edit.photo.label}`;
    case 'label-photo':
      return 'Named a photo';
    case 'remove-photo':
      return 'Removed a photo';
    case 'add-model':
      return `Took in the body ${edit.model.label}`;
    case 'model':
      return edit.change.factor === undefined ? 'Named a body' : 'Said a body’s unit';
    case 'remove-model':
      return 'Removed a body';
    case 'remove-dimension':
      return `Removed ${dimension(edit.dimensionId)}`;
    case 'want':
      return `${mate(edit.mateId)} shall be ${edit.want.name}`;
    case 'add-addition':
      return `Added “${edit.addition.name}”`;
    case 'addition':
      return edit.change.on === undefined
        ? `Renamed ${addition(edit.partId, edit.additionId)}`
        : `Switched ${addition(edit.partId, edit.additionId)} ${edit.change.on ? 'on' : 'off'}`;
    case 'move-addition':
      return `Moved ${addition(edit.partId, edit.additionId)}`;
    case 'remove-addition':
      return `Removed ${addition(edit.partId, edit.additionId)}`;
    case 'addition-fits':
      return edit.dimensionId === null
        ? `Let ${addition(edit.partId, edit.additionId)} fit nothing`
        : `Let ${addition(edit.partId, edit.additionId)} fit ${dimension(edit.dimensionId)}`;
    case 'add-part':
      return `Added the part ${edit.name}`;
    case 'rename-part':
      return `Renamed the part to “${edit.name}”`;
    case 'remove-part':
      return `Removed ${document.parts.find(p => p.id === edit.partId)?.name ?? 'a part'}`;
    case 'mate-with':
      return `${mate(edit.mateId)} goes with ${edit.other.of === 'part' ? (document.parts.find(p => p.id === (edit.other as { part: string }).part)?.name ?? 'another part') : 'the object'}`;
    case 'part-loads':
      return 'Said what the part has to bear';
    case 'part-neighbours':
      return 'Said what stands around the part';
    case 'goes-on':
      return edit.goesOn ? 'Said how the part goes on' : 'Left open how the part goes on';
    case 'parameter':
      return edit.expression
        ? `Set ${edit.name} to ${edit.expression.text}`
        : `Let ${edit.name} follow the recipe again`;
    case 'material':
      return 'Chose another plastic';
    case 'printer':
      return 'Chose another printer';
    case 'pose':
      return 'Turned the part on the bed';
    case 'in-service':
      return edit.since ? 'Put it in service' : 'Took it out of service';
    case 'service-note':
      return 'Noted how it holds';
  }
}
