/** So much of something there is for everyone together. */
export class Ration {
  private used = 0;
  constructor(readonly most: number) {}

  /** @returns false where there is not so much left */
  take(amount: number): boolean {
    if (this.used + amount > this.most) return false;
    this.used += amount;
    return true;
  }
  giveBack(amount: number): void {
    this.used -= amount;
  }
  get left(): number {
    return this.most - this.used;
  }
}
