import { type CSSProperties, type KeyboardEvent, type ReactNode, useRef } from 'react';
import { RadioGroup } from 'radix-ui';

export interface RadioOption<V extends string> {
  readonly value: V;
  readonly word: ReactNode;
  /** Spoken in place of the word. */
  readonly label?: string;
}

/**
 * An arrow chooses what it goes to, however short the key is pressed: the group by itself forgets the arrow when the key is
 * up before the focus has moved.
 */
export function useArrowChoice() {
  const arrowed = useRef(false);
  return {
    onKeyDownCapture: (event: KeyboardEvent) => {
      arrowed.current = event.key.startsWith('Arrow');
    },
    focused: (choose: () => void) => {
      if (arrowed.current) choose();
      arrowed.current = false;
    },
  };
}

/** Answers of which one holds, in a row: arrows choose, pressing the chosen one again takes it back where that is wanted. */
export function RadioRow<V extends string>({
  label,
  value,
  options,
  onChange,
  onClear,
  itemClass,
  itemStyle,
  className = 'flex',
  onKeyDown,
  marks = {},
}: {
  label: string;
  value: V | null;
  options: readonly RadioOption<V>[];
  onChange: (value: V) => void;
  onClear?: () => void;
  itemClass: (value: V, chosen: boolean) => string;
  itemStyle?: (value: V, chosen: boolean) => CSSProperties | undefined;
  className?: string;
  onKeyDown?: (event: KeyboardEvent<HTMLElement>) => void;
  /** Marks that keyboard walks look for. */
  marks?: Readonly<Record<`data-${string}`, string | number>>;
}) {
  const arrows = useArrowChoice();
  return (
    <RadioGroup.Root
      aria-label={label}
      orientation="horizontal"
      value={value ?? ''}
      onValueChange={(chosen) => onChange(chosen as V)}
      className={className}
      onKeyDownCapture={arrows.onKeyDownCapture}
      onKeyDown={onKeyDown}
      {...marks}
    >
      {options.map((o) => {
        const chosen = o.value === value;
        return (
          <RadioGroup.Item
            key={o.value}
            value={o.value}
            aria-label={o.label}
            className={itemClass(o.value, chosen)}
            style={itemStyle?.(o.value, chosen)}
            onFocus={() => arrows.focused(() => onChange(o.value))}
            onClick={chosen ? onClear : undefined}
          >
            {o.word}
          </RadioGroup.Item>
        );
      })}
    </RadioGroup.Root>
  );
}
