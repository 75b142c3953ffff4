import Button from '@mui/material/Button';
import { Component, type ReactNode } from 'react';
import { tell } from '../words/words.js';

interface Props {
  readonly children: ReactNode;
  /** A fault in one stage is forgotten when another is opened. */
  readonly stage: string;
}

/** Keeps a fault in one stage from taking the rest of the application with it. */
export class StageBoundary extends Component<Props, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError(): { failed: boolean } {
    return { failed: true };
  }

  override componentDidUpdate(before: Props): void {
    if (before.stage !== this.props.stage && this.state.failed) this.setState({ failed: false });
  }

  override render(): ReactNode {
    if (!this.state.failed) return this.props.children;
    return (
      <div className="empty" role="alert">
        <p>{tell('error.stage')}</p>
        <p className="below">
          <Button onClick={() => this.setState({ failed: false })}>{tell('error.again')}</Button>
        </p>
      </div>
    );
  }
}
