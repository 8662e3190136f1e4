import { useState } from 'react';
import { useBench } from '../../../job/bench-context';
import { Empty, Row } from '../../../ui/layout';
import { FileDrop, ImagedPage } from '../ImagedPage';
import { AddTraceButton, PracticeCameraButton, useAddTrace } from './AddTrace';
import { PhotoAdvice } from './PhotoAdvice';
import { SheetLinks } from './SheetLinks';
import { TraceBench } from './TraceBench';

/** Photos of flat objects and flatbed scans: each traced, measured, and turned into an outline. */
export function PhotosPage() {
  const { document } = useBench('document');
  const [picked, setPicked] = useState<string | null>(null);
  const adding = useAddTrace(setPicked);
  const traces = document.traces ?? [];
  const trace = traces.find(t => t.id === picked) ?? traces.at(-1);
  return (
    <FileDrop onFile={file => void adding.send(file)}>
      {trace ? (
        <ImagedPage
          title="Photos to trace"
          lead="Press on a side, a rounding or a hole for its size; on two for what lies between them. Take it as a reading, or the whole as an outline."
          kept={traces}
          shown={trace}
          onShow={setPicked}
          adding={
            <>
              <PracticeCameraButton {...adding} />
              <AddTraceButton {...adding} />
            </>
          }
        >
          <TraceBench key={trace.id} trace={trace} onRemoved={() => setPicked(null)} />
          <SheetLinks />
          <PhotoAdvice />
        </ImagedPage>
      ) : (
        <>
          <Empty
            title="No photo to trace yet"
            action={
              <Row $gap={8}>
                <AddTraceButton {...adding} main />
                <PracticeCameraButton {...adding} />
              </Row>
            }
          >
            For flat things: a cap’s face, a gasket, a latch. Print the sheet, lay the thing in its middle,
            take one photo from above and add it here, or drop its file. Or lay the thing on a flatbed
            scanner. Sagoma finds its outline in millimetres, with how sure each size is.
          </Empty>
          <SheetLinks />
          <PhotoAdvice open />
        </>
      )}
    </FileDrop>
  );
}
