'use client';
/** Keeps a fault in one part of the page from taking the others down; unsaved changes are not touched by it. */
import { Component, type ReactNode } from 'react';
import styles from './ui.module.css';

interface Props {
  /** What failed, as people say it: `The map`. */
  readonly what: string;
  /** The part is drawn afresh when this changes. */
  readonly of?: unknown;
  readonly children: ReactNode;
}

interface State {
  readonly fault: Error | null;
  readonly of: unknown;
}

export class Boundary extends Component<Props, State> {
  override state: State = { fault: null, of: this.props.of };

  static getDerivedStateFromError(fault: unknown): Partial<State> {
    return { fault: fault instanceof Error ? fault : new Error(String(fault)) };
  }

  static getDerivedStateFromProps({ of }: Props, state: State): Partial<State> | null {
    return of === state.of ? null : { of, fault: null };
  }

  override render(): ReactNode {
    const { fault } = this.state;
    if (!fault) return this.props.children;
    return (
      <div className={styles.fault} role="alert">
        <p>{this.props.what} cannot be drawn. Your changes are not affected.</p>
        <p className={styles.reason}>{fault.message.slice(0, 200)}</p>
        <button type="button" className={styles.again} onClick={() => this.setState({ fault: null })}>
          Try again
        </button>
      </div>
    );
  }
}
