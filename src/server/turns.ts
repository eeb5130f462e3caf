/** Work on one thing comes one after the other, in the order in which it was asked for; other things go on meanwhile. */
export class Turns {
  private readonly last = new Map<string, Promise<unknown>>();

  take<T>(key: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(key) ?? Promise.resolve();
    const mine = before.then(work, work);
    const ended = mine.catch(() => {});
    this.last.set(key, ended);
    void ended.then(() => {
      if (this.last.get(key) === ended) this.last.delete(key);
    });
    return mine;
  }
}
