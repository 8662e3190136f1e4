import { type ReactNode, useRef } from 'react';
import styled from 'styled-components';
import { Button } from './controls';

interface Props {
  /** What the file is, for whoever cannot see the button. */
  label: string;
  accept: string;
  /** A phone opens its camera for it. */
  camera?: boolean;
  onFile(file: File): void;
  /** The one thing to do on its page. */
  main?: boolean;
  isDisabled?: boolean;
  children: ReactNode;
}

/** A button that asks for one file. */
export function FileButton({
  label,
  accept,
  camera = false,
  onFile,
  main = false,
  isDisabled,
  children,
}: Props) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <Hidden
        ref={field}
        type="file"
        accept={accept}
        capture={camera ? 'environment' : undefined}
        aria-label={label}
        tabIndex={-1}
        onChange={event => {
          const chosen = event.target.files?.[0];
          // The same file may be chosen again.
          event.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
      <Button
        $small={!main}
        $look={main ? 'main' : undefined}
        isDisabled={isDisabled}
        onPress={() => field.current?.click()}
      >
        {children}
      </Button>
    </>
  );
}

const Hidden = styled.input`display: none;`;
