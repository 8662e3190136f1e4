import { useState } from 'react';
import styled from 'styled-components';
import { useBench } from '../../../job/bench-context';
import { Empty, Lead, TabRow } from '../../../ui/layout';
import { AddScanButton, useAddScan } from './AddScan';
import { ScanAdvice } from './ScanAdvice';
import { ScanBench } from './ScanBench';

/** Scans of the object: each looked at, put right and measured on. */
export function ScansPage() {
  const { document } = useBench('document');
  const [picked, setPicked] = useState<string | null>(null);
  const adding = useAddScan(setPicked);
  const scan = document.scans.find(s => s.id === picked) ?? document.scans[0];
  const drop = {
    onDragOver: (event: React.DragEvent) => event.preventDefault(),
    onDrop: (event: React.DragEvent) => {
      event.preventDefault();
      const [file] = event.dataTransfer.files;
      if (file) void adding.send(file);
    },
  };
  if (!scan)
    return (
      <div {...drop}>
        <Empty title="No scan yet" action={<AddScanButton {...adding} main />}>
          Add a scan of the object, or drop its file here: STL, OBJ, PLY, OFF, 3MF or a list of points, up to
          300 MB. Sagoma finds what is on it and how sure each size is. A scan finds shapes, calipers find
          sizes: read one or two sizes both ways before anything is built on it.
        </Empty>
        <ScanAdvice open />
      </div>
    );
  return (
    <div {...drop}>
      <h1>Scans of the object</h1>
      <Lead>
        A scan finds shapes, calipers find sizes: press on what you need, take its size as a reading, and read
        one or two sizes with calipers too.
      </Lead>
      <Which>
        <div role="tablist" aria-label="Scans">
          {document.scans.map(s => (
            <button
              key={s.id}
              type="button"
              role="tab"
              aria-selected={s.id === scan.id}
              title={s.label}
              onClick={() => setPicked(s.id)}
            >
              {s.label}
            </button>
          ))}
        </div>
        <span className="end">
          <AddScanButton {...adding} />
        </span>
      </Which>
      <ScanBench key={scan.id} scan={scan} onRemoved={() => setPicked(null)} />
      <ScanAdvice />
    </div>
  );
}

const Which = styled(TabRow)`margin-bottom: 12px;`;
