/** The last few answers by key; the oldest goes first. */
export class Recent<T> {
  private readonly kept = new Map<string, T>();
  constructor(private readonly most: number) {}

  get(key: string): T | undefined {
    const found = this.kept.get(key);
    if (found === undefined) return undefined;
    this.kept.delete(key);
    this.kept.set(key, found);
    return found;
  }

  put(key: string, value: T): void {
    this.kept.delete(key);
    this.kept.set(key, value);
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!);
  }
}
