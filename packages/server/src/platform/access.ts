/**
 * Who reads or changes, and what they may. Nothing of the evidence is read, and nothing is changed, without one: what can do either stands behind `Guarded`.
 *
 * Until there is sign-in, whoever reaches the server is the local administrator, and sees everything; what is narrower is to be decided where repositories are made for an
 * access, in the rooms.
 */
export class Access {
  readonly #who: string;
  private constructor(who: string) {
    this.#who = who;
  }
  /** The name that a change is noted with. */
  get who(): string {
    return this.#who;
  }

  static readonly localAdministrator = new Access('local administrator');
  /** What the application does by itself, and what its changes are noted with; never on behalf of one who asks. */
  static readonly ownWork = new Access('supplied');
  static readonly discovery = new Access('discovered');
  static readonly guard = new Access('guard');
  static readonly clocks = new Access('found');
}

/** What is reached with an access alone. It is made once for each. */
export class Guarded<T extends object> {
  readonly #made = new WeakMap<Access, T>();
  readonly #make: (access: Access) => T;

  constructor(make: (access: Access) => T) {
    this.#make = make;
  }
  by(access: Access): T {
    let made = this.#made.get(access);
    if (made === undefined) this.#made.set(access, (made = this.#make(access)));
    return made;
  }
}
export const guarded = <T extends object>(make: (access: Access) => T): Guarded<T> => new Guarded(make);
