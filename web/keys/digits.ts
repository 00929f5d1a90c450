/**
 * Per cents typed on the surface: one digit is tens, 0 is all; a second one pressed soon after makes it exact, so that
 * 3 and 5 are 35 %, 0 and 5 are 5 %.
 */
export const TOGETHER_MS = 700;

export class DigitEntry {
  private first: { digit: number; at: number } | null = null;

  /** Answers per cents. `at` is in milliseconds. */
  press(digit: number, at: number): number {
    const { first } = this;
    if (first && at - first.at <= TOGETHER_MS) {
      this.first = null;
      return first.digit * 10 + digit || 100;
    }
    this.first = { digit, at };
    return digit * 10 || 100;
  }

  /** Something else was done: the next digit is the first of another number. */
  end(): void {
    this.first = null;
  }
}
