import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { Device, Pair } from '../../contract/phone';
import { post } from '../api/client';
import { Button } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Notice, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';

/** Removed from the address at once, so that the history contains no usable code. */
function codeOfAddress(): string {
  const code = decodeURIComponent(location.hash.slice(1));
  if (code) history.replaceState(null, '', location.pathname);
  return code;
}

/** What a phone shows before it is paired. */
export default function PairPage() {
  const navigate = useNavigate();
  const { control, handleSubmit, setError, formState } = useForm({
    resolver: zodResolver(z.object({ code: Pair.shape.code })),
    defaultValues: { code: '' },
  });
  const [trying, setTrying] = useState(false);
  const pair = async (code: string) => {
    try {
      await post('/pair', Device, { code, kind: kindOfDevice() });
      await navigate('/phone', { replace: true });
    } catch (error) {
      setError('code', { message: (error as Error).message });
    } finally {
      setTrying(false);
    }
  };
  const latest = useRef(pair);
  latest.current = pair;
  useEffect(() => {
    const take = () => {
      const code = codeOfAddress();
      if (code === '') return;
      setTrying(true);
      void latest.current(code);
    };
    take();
    // Scanned while this page was open: only the end of its address changes.
    addEventListener('hashchange', take);
    return () => removeEventListener('hashchange', take);
  }, []);
  return (
    <Page>
      <h1>Sagoma</h1>
      {trying ? (
        <p role="status">Letting this phone in…</p>
      ) : (
        <form onSubmit={event => void handleSubmit(({ code }) => pair(code))(event)}>
          <Stack $gap={14}>
            <p>
              This phone becomes the second screen of the bench: photos, readings, verdicts. On the computer,
              open Workshop, then “Pair a phone”, and scan what it shows with the camera. Or type the code
              under it:
            </p>
            <FormField control={control} name="code" label="Code" placeholder="ABCDE-12345" maxLength={20} />
            <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
              Come in
            </Button>
            <Notice level="note">Each code is taken once, for five minutes.</Notice>
          </Stack>
        </form>
      )}
    </Page>
  );
}

function kindOfDevice(): z.infer<typeof Pair>['kind'] {
  if (navigator.maxTouchPoints === 0) return 'computer';
  return Math.min(screen.width, screen.height) < 600 ? 'phone' : 'tablet';
}

const Page = styled.main`
  max-width: 420px; margin: 0 auto; padding: 32px 20px;
  h1 { font: 600 26px ${FONTS.label}; color: var(--blue); margin-bottom: 18px; }
`;
