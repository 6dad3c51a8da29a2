import { say } from '@heathstep/core';
import { goTo, nextStop } from './moving.js';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0', '−'] as const;

/** The trial that was last in focus, or the first of the open row. */
function field(): HTMLInputElement | null {
  const active = document.activeElement;
  return active instanceof HTMLInputElement && active.dataset['row'] !== undefined
    ? active
    : document.querySelector<HTMLInputElement>('section.bg-paper input[data-trial]');
}

/** Types as a person would, so that the field's own rules see it. */
function put(input: HTMLInputElement, text: string): void {
  // React listens to the field's own setter; going round it lets the event count as typing.
  const own = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value');
  own?.set?.call(input, text);
  input.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Figures for a finger: large keys under the trials, so that no keyboard covers half the bench. */
export function Keypad() {
  const press = (key: string) => {
    const input = field();
    if (input === null) return;
    input.focus({ preventScroll: true });
    const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length;
    const sign = key === '−' ? '-' : key;
    put(input, whole ? sign : input.value + sign);
    input.setSelectionRange(input.value.length, input.value.length);
  };
  const back = () => {
    const input = field();
    if (input !== null) put(input, input.value.slice(0, -1));
  };
  const onward = () => {
    const input = field();
    if (input !== null) goTo(nextStop(input, 1));
  };
  const keep = (event: React.PointerEvent) => event.preventDefault();
  return (
    <div
      className="mt-2 grid grid-cols-8 gap-1"
      role="group"
      aria-label={say('Figures')}
      onPointerDown={keep}
    >
      {KEYS.map((key) => (
        <button
          key={key}
          type="button"
          className="min-h-11 rounded bg-line-2 text-lg font-semibold active:bg-heather-wash"
          onClick={() => press(key)}
        >
          {key}
        </button>
      ))}
      <button
        type="button"
        className="col-span-2 min-h-11 rounded bg-line-2 font-semibold"
        onClick={back}
        aria-label={say('Delete the last figure')}
      >
        ⌫
      </button>
      <button type="button" className="action col-span-2 !min-h-11" onClick={onward}>
        {say('Next')}
      </button>
    </div>
  );
}
