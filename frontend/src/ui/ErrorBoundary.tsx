import { Component, type ErrorInfo, type ReactNode } from "react";
import { Button } from "./Button";

type Props = { children: ReactNode };
type State = { error: Error | null };

/** A page that broke says so, and leaves the rest of the application standing. */
export class ErrorBoundary extends Component<Props, State> {
  override state: State = { error: null };

  static getDerivedStateFromError(error: Error): State {
    return { error };
  }

  override componentDidCatch(error: Error, info: ErrorInfo) {
    console.error(error, info.componentStack);
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <section role="alert" className="mx-auto max-w-xl space-y-3 px-4 py-12">
        <h1 className="title text-title">This page broke</h1>
        <p>
          Something went wrong while it was drawn ({error.message || error.name}). Nothing that was
          kept is lost.
        </p>
        <p className="flex gap-3">
          <Button look="main" onClick={() => this.setState({ error: null })}>
            Draw it again
          </Button>
          <Button onClick={() => location.reload()}>Reload</Button>
        </p>
      </section>
    );
  }
}
