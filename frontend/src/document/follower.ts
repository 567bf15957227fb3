/** Asks about the newest document, one request at a time; again with growing pauses while there is no answer. */
import { replaceEqualDeep } from "@tanstack/react-query";
import type { Fault, Live } from "../api/client";
import { pause } from "../api/connection";
import type { Answers } from "./answers";
import type { Answered, Asked } from "./asking";
import type { DesignDocument } from "./document";

export interface LiveState {
  live: Live | null;
  /** The document that these figures are of. */
  of: DesignDocument | null;
  /** What is wrong with the document; the figures are then those of the last readable one. */
  faults: Fault[];
  trouble: string;
}

export type Tell = (change: (old: LiveState) => LiveState) => void;

export class Follower {
  private next: Asked | null = null;
  private busy = false;
  /** Ends the pause before the next try. */
  private endPause: (() => void) | null = null;

  /**
   * @param newest what is on the screen.
   * @param fallback a document that could be read: its figures stand where the first one asked about cannot be read.
   */
  constructor(
    private readonly answers: Answers<Asked, Answered>,
    private readonly tell: Tell,
    private newest: Asked,
    private fallback: DesignDocument | null,
  ) {}

  /** This is on the screen now. What is typed during a pause is asked about at once. */
  about(question: Asked): void {
    this.newest = question;
    if (!this.answers.get(question)) void this.run();
    this.endPause?.();
  }

  /** Try once more, without waiting. */
  again(): void {
    void this.run();
    this.endPause?.();
  }

  /** Work out ahead what the next keys lead to. */
  ahead(documents: DesignDocument[]): void {
    this.answers.next(documents.map((document) => ({ ...this.newest, document })));
  }

  private async run(): Promise<void> {
    this.next = this.newest;
    if (this.busy) return;
    this.busy = true;
    for (let tries = 0; this.next; ) {
      const question: Asked = this.next;
      this.next = null;
      const known = this.answers.get(question) && question !== this.newest;
      const retry = !known && (await this.answer(question));
      if (!retry) tries = 0;
      else if (!this.next) {
        await this.wait(pause(tries++));
        this.next ??= this.newest;
      }
    }
    this.busy = false;
  }

  /** Ask, and tell what came; whether to ask again. */
  private async answer(question: Asked): Promise<boolean> {
    const { retry, live, faults, trouble } = await this.answers.ask(question);
    // Something newer may have been known, and stand there already.
    if (question === this.newest || !this.answers.get(this.newest))
      this.tell((old) => (live ? showing(old, live, question.document) : { ...old, faults, trouble }));
    if (live) this.fallback = null;
    else if (faults.length > 0 && this.fallback) await this.fallBack(question, this.fallback);
    return retry;
  }

  private async fallBack(question: Asked, readable: DesignDocument): Promise<void> {
    const before = (await this.answers.ask({ ...question, document: readable })).live;
    this.fallback = null;
    if (before) this.tell((old) => ({ ...old, live: before, of: readable }));
  }

  private async wait(long: number): Promise<void> {
    await new Promise<void>((passed) => {
      window.setTimeout(passed, long);
      this.endPause = passed;
    });
    this.endPause = null;
  }
}

/** What is the same as before stays the same object, so that nothing is painted anew for it. */
export const showing = (old: LiveState, live: Live, of: DesignDocument): LiveState => ({
  live: replaceEqualDeep(old.live, live),
  of,
  faults: [],
  trouble: "",
});
