/** Lets so many through at one time; the others wait in line. */
export class Gate {
  private inside = 0;
  private readonly line: (() => void)[] = [];

  constructor(private readonly most: number) {}

  async pass<Result>(run: () => Promise<Result>): Promise<Result> {
    if (this.inside >= this.most) await new Promise<void>((resolve) => this.line.push(resolve));
    else this.inside++;
    try {
      return await run();
    } finally {
      const next = this.line.shift();
      if (next) next();
      else this.inside--;
    }
  }
}
