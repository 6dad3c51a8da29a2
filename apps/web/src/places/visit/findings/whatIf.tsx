import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { Column } from '@heathstep/core';

export interface Supposed {
  readonly finding: string;
  readonly side: Column;
}

interface WhatIf {
  readonly supposed: Supposed | null;
  readonly suppose: (supposed: Supposed | null) => void;
}

const Context = createContext<WhatIf>({ supposed: null, suppose: () => undefined });

/** An unanswered finding that is pointed at; the ideas beside show what either answer would do. */
export function WhatIfProvider({ children }: { children: ReactNode }) {
  const [supposed, suppose] = useState<Supposed | null>(null);
  const value = useMemo(() => ({ supposed, suppose }), [supposed]);
  return <Context value={value}>{children}</Context>;
}

export const useWhatIf = (): WhatIf => useContext(Context);
