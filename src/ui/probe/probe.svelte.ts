/** The line at the foot of every screen, as other parts of the screen reach it. */
class ProbeLine {
  text = $state('');
  /** A screen that takes Enter for itself, as Try does. */
  takeOver = $state<((text: string) => Promise<void>) | null>(null);
  /** What the line is for now. */
  purpose = $state('Try any message');
  input: HTMLInputElement | null = null;

  focus(): void {
    this.input?.focus();
    this.input?.select();
  }
}

export const probe = new ProbeLine();
