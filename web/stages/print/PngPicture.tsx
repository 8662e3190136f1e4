import { useEffect, useState } from 'react';
import styled from 'styled-components';

/** A picture that a worker drew, PNG. @param height of its frame, px */
export function PngPicture({ bytes, alt, height }: { bytes: Uint8Array; alt: string; height: number }) {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    const made = URL.createObjectURL(new Blob([bytes.slice()], { type: 'image/png' }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [bytes]);
  return <Frame $height={height}>{url ? <img src={url} alt={alt} /> : null}</Frame>;
}

const Frame = styled.div<{ $height: number }>`
  height: ${p => p.$height}px; min-width: ${p => p.$height}px; display: grid; place-items: center; background: var(--tint); border-radius: 3px;
  img { max-width: 100%; height: ${p => p.$height - 4}px; object-fit: contain; }
`;
