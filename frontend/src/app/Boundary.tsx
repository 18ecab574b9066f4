import { Button } from "@mantine/core";
import { Component, type ReactNode } from "react";
import { Link } from "react-router";
import classes from "./Frame.module.css";

interface Props {
  /** What broke, in words. */
  name: string;
  back: string;
  children: ReactNode;
}

/** A step that breaks takes nothing else with it: what is typed stays, and there is a way back. */
export class Boundary extends Component<Props, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <section className={classes.later} role="alert">
        <h1>{this.props.name} cannot be shown</h1>
        <p>Something broke on this step. What you typed is kept, and the other steps work.</p>
        <p className={classes.ways}>
          <Button variant="default" onClick={() => this.setState({ broken: false })}>
            Try again
          </Button>
          <Button variant="default" onClick={() => window.location.reload()}>
            Load the page again
          </Button>
          <Link to={this.props.back}>Back to Player</Link>
        </p>
      </section>
    );
  }
}
