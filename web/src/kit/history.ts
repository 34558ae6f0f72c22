/** Undo and redo over values that are never changed in place. */
export class History<T> {
  private past: T[] = [];
  private future: T[] = [];
  private lastKey: string | null = null;

  constructor(private readonly most = 200) {}

  /** Remembers a value before it changes; changes with the same key in a row count as one. */
  remember(value: T, key: string | null = null) {
    if (key !== null && key === this.lastKey) return;
    this.past.push(value);
    if (this.past.length > this.most) this.past.shift();
    this.future = [];
    this.lastKey = key;
  }

  /** Ends a run of changes that count as one. */
  settle() {
    this.lastKey = null;
  }

  undo(present: T): T | null {
    const value = this.past.pop();
    if (value === undefined) return null;
    this.future.push(present);
    this.lastKey = null;
    return value;
  }

  redo(present: T): T | null {
    const value = this.future.pop();
    if (value === undefined) return null;
    this.past.push(present);
    this.lastKey = null;
    return value;
  }

  /** What undo would bring back. */
  get before(): T | undefined {
    return this.past.at(-1);
  }

  /** What redo would bring back. */
  get after(): T | undefined {
    return this.future.at(-1);
  }

  get canUndo() {
    return this.past.length > 0;
  }

  get canRedo() {
    return this.future.length > 0;
  }
}
