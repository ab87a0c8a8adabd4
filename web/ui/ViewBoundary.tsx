import { Component, type ReactNode } from 'react';
import { Button } from './controls.tsx';

/**
 * Keeps an error of one view within it, so that the tape, the bar and the other views go on. Given a `key` that names the
 * view, leaving it for another recovers.
 */
export class ViewBoundary extends Component<
  { name: string; children: ReactNode },
  { failure: Error | null }
> {
  override state: { failure: Error | null } = { failure: null };

  static getDerivedStateFromError(failure: unknown): { failure: Error } {
    return { failure: failure instanceof Error ? failure : new Error(String(failure)) };
  }

  override render(): ReactNode {
    const { failure } = this.state;
    if (!failure) return this.props.children;
    return (
      <div role="alert" className="p-6">
        <h2 className="title text-lg">{this.props.name} could not be shown</h2>
        <p className="mt-1 text-soft">
          The program made a mistake here: {failure.message || 'no more is known'}. Tape, lists and files are
          as they were; the other views go on.
        </p>
        <p className="mt-3">
          <Button onClick={() => this.setState({ failure: null })}>Try again</Button>
        </p>
      </div>
    );
  }
}
