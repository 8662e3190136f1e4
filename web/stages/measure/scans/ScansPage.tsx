import { useState } from 'react';
import { useBench } from '../../../job/bench-context';
import { Empty, Row } from '../../../ui/layout';
import { FileDrop, ImagedPage } from '../ImagedPage';
import { AddScanButton, PracticeScanButton, useAddScan } from './AddScan';
import { ScanAdvice } from './ScanAdvice';
import { ScanBench } from './ScanBench';

/** Scans of the object: each viewed, prepared and measured. */
export function ScansPage() {
  const { document } = useBench('document');
  const [picked, setPicked] = useState<string | null>(null);
  const adding = useAddScan(setPicked);
  const scan = document.scans.find(s => s.id === picked) ?? document.scans[0];
  return (
    <FileDrop onFile={file => void adding.send(file)}>
      {scan ? (
        <ImagedPage
          title="Scans of the object"
          lead="A scan finds shapes, calipers find sizes: press on what you need, take its size as a reading, and read one or two sizes with calipers too."
          kept={document.scans}
          shown={scan}
          onShow={setPicked}
          adding={
            <>
              <PracticeScanButton {...adding} />
              <AddScanButton {...adding} />
            </>
          }
        >
          <ScanBench key={scan.id} scan={scan} onRemoved={() => setPicked(null)} />
          <ScanAdvice />
        </ImagedPage>
      ) : (
        <>
          <Empty
            title="No scan yet"
            action={
              <Row $gap={8}>
                <AddScanButton {...adding} main />
                <PracticeScanButton {...adding} />
              </Row>
            }
          >
            Add a scan of the object, or drop its file here: STL, OBJ, PLY, OFF, 3MF or a list of points, up
            to 300 MB. Sagoma finds what is on it and how sure each size is. A scan finds shapes, calipers
            find sizes: read one or two sizes both ways before anything is built on it.
          </Empty>
          <ScanAdvice open />
        </>
      )}
    </FileDrop>
  );
}
