/** Where a press began: the control under it and the address then shown. */
interface Press {
  control: Element | null;
  href: string;
}

const CONTROL = 'a, button, input, select, textarea, label, summary, [role]';

const controlOf = (event: MouseEvent): Element | null =>
  event.target instanceof Element ? event.target.closest(CONTROL) : null;

/**
 * The second press of a double press belongs to the control that took the first. Where the first has already
 * opened another place, the second would fall on whatever stands there now (another person's record, say), so
 * it does nothing. Pressing one control quickly again and again stays as it is.
 * @returns a function that takes the rule away
 */
export function keepSecondPressFromNextPlace(target: Window = window): () => void {
  let first: Press = { control: null, href: '' };
  const hear = (event: MouseEvent) => {
    if (event.detail > 1 && target.location.href !== first.href && controlOf(event) !== first.control) {
      event.preventDefault();
      event.stopImmediatePropagation();
    } else if (event.type === 'mousedown' && event.detail <= 1)
      first = { control: controlOf(event), href: target.location.href };
  };
  const kinds = ['mousedown', 'mouseup', 'click'] as const;
  for (const kind of kinds) target.addEventListener(kind, hear, { capture: true });
  return () => {
    for (const kind of kinds) target.removeEventListener(kind, hear, { capture: true });
  };
}
