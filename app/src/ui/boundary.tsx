/**
 * What is shown instead of a part that cannot be rendered: its name, a way to try again, and a report to
 * save. The other places keep working.
 */
import { Component, type ErrorInfo, type ReactNode } from 'react';
import { Button } from './button';
import { Card } from './card';
import { Row } from './page';
import { Text } from './text';
import { WORDS } from './words';

type Props = {
  children: ReactNode;
  /** What cannot be drawn: "the hands card". */
  what: string;
  /** Drawn with it, where what has to be known can be said plainly. */
  fallback?: ReactNode;
  /** Nothing is said where it fails: it is told of elsewhere. */
  silent?: true;
};
type State = { error: Error | null; stack: string };

export class Boundary extends Component<Props, State> {
  override state: State = { error: null, stack: '' };

  static getDerivedStateFromError(error: unknown): Partial<State> {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(_error: unknown, { componentStack }: ErrorInfo): void {
    this.setState({ stack: componentStack ?? '' });
  }

  override render(): ReactNode {
    const { error, stack } = this.state;
    if (!error) return this.props.children;
    if (this.props.silent) return null;
    const happened = `${new Date().toISOString()} ${globalThis.location?.pathname ?? ''}\n${error.stack ?? error.message}\n${stack}`;
    return (
      <Card ruled style={{ margin: 12, padding: 20, gap: 12 }}>
        {this.props.fallback}
        <Text bold>{WORDS.cannotShowNow(this.props.what)}</Text>
        <Text quiet>{WORDS.everyTapKept(error.message)}</Text>
        <Row style={{ flexWrap: 'wrap' }}>
          <Button label={WORDS.retry} onPress={() => this.setState({ error: null, stack: '' })} />
          <Button
            kind="bare"
            label={WORDS.copyWhatHappened}
            onPress={() => void globalThis.navigator?.clipboard?.writeText(happened).catch(() => undefined)}
          />
        </Row>
      </Card>
    );
  }
}
