import { Component, type ReactNode } from 'react';

interface Props {
  /** What it shows, in the words of whoever looks: a ticket, a mold. */
  of: string;
  /** Called where a failure is caught, so that what is worked out for the part belongs to it. */
  children: () => ReactNode;
}

const Shown = ({ show }: { show: () => ReactNode }) => show();

/** One part of a page. Where its record cannot be shown, that is said in its place, and the rest of the page stands. */
export class Part extends Component<Props, { error: Error | null }> {
  override state = { error: null as Error | null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override componentDidUpdate(before: Props) {
    // A record that was put right is tried again.
    if (this.state.error && before.children !== this.props.children) this.setState({ error: null });
  }

  override render() {
    const { error } = this.state;
    if (!error) return <Shown show={this.props.children} />;
    return (
      <p role="alert" className="cut border-l-4 border-stop bg-stop-wash px-4 py-3 text-sm text-stop">
        {this.props.of} cannot be shown ({error.message}). The rest of this page is as it should be.
      </p>
    );
  }
}
