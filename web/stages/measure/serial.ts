import { useCallback, useEffect, useRef, useState } from 'react';

/** The part of the browser's serial ports that we use, where it has them. */
interface Port {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}
interface Ports {
  requestPort(): Promise<Port>;
}

const portsOf = () => (navigator as Navigator & { serial?: Ports }).serial;

/** Most calipers' cables speak at this speed. Common practice, no source. */
const BAUD = 9600;
/** A line that does not end is noise. */
const LONGEST_LINE = 400;

export interface Serial {
  /** Whether this browser has serial ports at all. */
  offered: boolean;
  open: boolean;
  problem: string | null;
  connect(): Promise<void>;
  disconnect(): Promise<void>;
}

/** A caliper's cable on a serial port: every line it sends is passed on. */
export function useSerial(onLine: (line: string) => void): Serial {
  const latest = useRef(onLine);
  latest.current = onLine;
  const using = useRef<{ port: Port; reader: ReadableStreamDefaultReader<Uint8Array> } | null>(null);
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const disconnect = useCallback(async () => {
    const now = using.current;
    using.current = null;
    setOpen(false);
    await now?.reader.cancel().catch(() => undefined);
    await now?.port.close().catch(() => undefined);
  }, []);
  useEffect(() => () => void disconnect(), [disconnect]);

  const connect = useCallback(async () => {
    setProblem(null);
    try {
      const port = await portsOf()!.requestPort();
      await port.open({ baudRate: BAUD });
      const reader = port.readable!.getReader();
      using.current = { port, reader };
      setOpen(true);
      void readLines(reader, line => latest.current(line)).then(
        () => disconnect(),
        (error: Error) => {
          setProblem(`The cable went silent: ${error.message}`);
          void disconnect();
        },
      );
    } catch (error) {
      // Choosing none of the ports is not a failure.
      if ((error as Error).name !== 'NotFoundError')
        setProblem(`The port cannot be opened: ${(error as Error).message}`);
    }
  }, [disconnect]);
  return { offered: portsOf() !== undefined, open, problem, connect, disconnect };
}

async function readLines(
  reader: ReadableStreamDefaultReader<Uint8Array>,
  onLine: (line: string) => void,
): Promise<void> {
  const decoder = new TextDecoder();
  let rest = '';
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    rest += decoder.decode(value, { stream: true });
    const lines = rest.split(/[\r\n]+/);
    rest = lines.pop()!.slice(-LONGEST_LINE);
    for (const line of lines) if (line.trim() !== '') onLine(line);
  }
}
