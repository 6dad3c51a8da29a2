import { say } from '@heathstep/core';
import { Component, type ReactNode } from 'react';

interface SetAsideProps {
  /** What was kept, within a sentence: the draft of this exercise. */
  readonly what: string;
  /** Puts what was kept on this device out of the way. */
  readonly aside: () => void;
  readonly children: ReactNode;
}

/**
 * Stands around what is drawn from a draft kept on this device. A draft that cannot be drawn is told, and set aside by a
 * press: it never bars the way to the page again.
 */
export class SetAside extends Component<SetAsideProps, { readonly failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError(): { failed: boolean } {
    return { failed: true };
  }

  override render(): ReactNode {
    if (!this.state.failed) return this.props.children;
    return (
      <main className="mx-auto max-w-xl px-6 py-24" role="alert">
        <h1>{say('This cannot be opened')}</h1>
        <p className="mt-3 text-ink-2">
          {say(
            '{{what}} kept on this device is not one that can be read. It can be set aside: it stays on this device, and the page begins anew.',
            { what: this.props.what },
          )}
        </p>
        <button
          type="button"
          className="action mt-6"
          onClick={() => {
            this.props.aside();
            this.setState({ failed: false });
          }}
        >
          {say('Set it aside')}
        </button>
      </main>
    );
  }
}
