import { useCallback, useEffect, useRef, useState } from 'react';
import {
  CAPTURE_START,
  captureCut,
  captureFrame,
  type CapturedValue,
  type CaptureState,
  captureTick,
  captureZero,
  type DeviceKind,
  type DeviceMistake,
  parseFrame,
  say,
} from '@heathstep/core';

type Link = 'off' | 'connecting' | 'on' | 'failed';

export interface Device {
  readonly link: Link;
  readonly state: CaptureState;
  readonly connect: () => void;
  readonly disconnect: () => void;
  readonly zero: () => void;
  /** Asks a simulated device to play mistakes; a real one takes no notice. */
  readonly play: (mistakes: readonly DeviceMistake[]) => void;
}

const LOOK_MS = 250;
const OPEN_WITHIN_MS = 4000;

/**
 * A device on this machine, spoken to in JSON lines over a WebSocket. `onValue` is called once for every value the
 * capture completes; a cut line, rubbish and silence never complete one.
 */
export function useDevice(
  base: string | null,
  kind: DeviceKind,
  aim: { readonly measure: string; readonly side: string } | null,
  onValue: (value: CapturedValue, state: CaptureState) => void,
): Device {
  const [link, setLink] = useState<Link>('off');
  const [state, setState] = useState<CaptureState>(CAPTURE_START);
  const now = useRef(CAPTURE_START);
  const socket = useRef<WebSocket | null>(null);
  const given = useRef(onValue);
  useEffect(() => {
    given.current = onValue;
  });
  const put = useCallback((next: CaptureState) => {
    now.current = next;
    setState(next);
    if (next.taken !== null) given.current(next.taken, next);
  }, []);
  const disconnect = useCallback(() => {
    const open = socket.current;
    socket.current = null;
    open?.close();
    now.current = CAPTURE_START;
    setState(CAPTURE_START);
    setLink('off');
  }, []);
  const connect = useCallback(() => {
    if (base === null) return;
    disconnect();
    setLink('connecting');
    const ws = new WebSocket(`${base}/${kind}`);
    socket.current = ws;
    const late = setTimeout(() => {
      if (ws.readyState === WebSocket.CONNECTING) ws.close();
    }, OPEN_WITHIN_MS);
    ws.onopen = () => {
      clearTimeout(late);
      if (socket.current === ws) setLink('on');
    };
    ws.onmessage = (event: MessageEvent<unknown>) => {
      if (socket.current !== ws) return;
      const text = typeof event.data === 'string' ? event.data : '\u0000';
      for (const line of text.split('\n').filter((l) => l.trim() !== ''))
        put(captureFrame(now.current, parseFrame(line), performance.now()));
    };
    ws.onclose = () => {
      clearTimeout(late);
      if (socket.current !== ws) return;
      socket.current = null;
      const spoke = now.current.hello !== null;
      put(captureCut(now.current, now.current.endReason ?? say('the connection was lost')));
      setLink(spoke ? 'off' : 'failed');
    };
  }, [base, kind, disconnect, put]);
  useEffect(() => {
    if (link !== 'on') return;
    const timer = setInterval(() => {
      const next = captureTick(now.current, performance.now());
      if (next.warnings !== now.current.warnings || next.taken !== now.current.taken) put(next);
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [link, put]);
  useEffect(() => {
    if (link === 'on' && aim !== null) socket.current?.send(`${JSON.stringify({ type: 'aim', ...aim })}\n`);
    // The aim is sent when its parts change, not when the object does.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [link, aim?.measure, aim?.side]);
  useEffect(
    () => () => {
      const open = socket.current;
      socket.current = null;
      open?.close();
    },
    [],
  );
  return {
    link,
    state,
    connect,
    disconnect,
    zero: () => put(captureZero(now.current)),
    play: (mistakes) => socket.current?.send(`${JSON.stringify({ type: 'mistakes', mistakes })}\n`),
  };
}
