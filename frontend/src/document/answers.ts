/**
 * The last answers to questions about designs, so that going back and forth between sizes costs nothing, and what the next
 * keys lead to is known before they are pressed.
 */

/** Answers kept; one is some 30 KB. */
const KEPT = 80;
/** Questions asked ahead at once: a key that is held down is followed, and the server has time for others. */
const AHEAD = 2;

export class Answers<Question, Answer> {
  private known = new Map<string, Answer>();
  private pending = new Map<string, Promise<Answer>>();
  private ahead: Question[] = [];

  /**
   * @param askServer asks, and never fails.
   * @param isKept whether an answer holds for the next time too: a lost connection does not.
   */
  constructor(
    private askServer: (question: Question) => Promise<Answer>,
    private isKept: (answer: Answer) => boolean,
  ) {}

  /** What was answered to the same question. */
  get(question: Question): Answer | undefined {
    return this.known.get(JSON.stringify(question));
  }

  /** The answer; a question that is on its way is not asked twice. */
  ask(question: Question): Promise<Answer> {
    const key = JSON.stringify(question);
    const known = this.known.get(key);
    if (known !== undefined) return Promise.resolve(known);
    const pending = this.pending.get(key);
    if (pending) return pending;
    const made = this.askServer(question).then((answer) => {
      this.pending.delete(key);
      if (this.isKept(answer)) this.keep(key, answer);
      this.askAhead();
      return answer;
    });
    this.pending.set(key, made);
    return made;
  }

  /** Ask these too, in their order, in place of what was to be asked ahead until now. */
  next(questions: Question[]): void {
    this.ahead = questions;
    this.askAhead();
  }

  private askAhead(): void {
    while (this.pending.size < AHEAD) {
      const question = this.ahead.shift();
      if (question === undefined) return;
      if (this.get(question) === undefined) void this.ask(question);
    }
  }

  private keep(key: string, answer: Answer): void {
    this.known.set(key, answer);
    const [oldest] = this.known.keys();
    if (this.known.size > KEPT && oldest !== undefined) this.known.delete(oldest);
  }
}
