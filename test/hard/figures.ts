/** Figures of a hard test, a line each; those that must be nothing are failures when they are not. */
export interface Figures {
  note: (what: string, value: number | string) => void;
  /** A figure that must be 0. */
  none: (what: string, value: number) => void;
  /** A figure that must be at most so much. */
  atMost: (what: string, value: number, most: number, unit: string) => void;
  failures: () => number;
}

export function createFigures(): Figures {
  let failures = 0;
  const print = (what: string, value: number | string, fault = '') =>
    console.log(`${what.padEnd(66)} ${String(value).padStart(10)}${fault}`);
  const judge = (what: string, value: number, holds: boolean, text: string) => {
    if (!holds) failures++;
    print(what, text, holds ? '' : '   FAILED');
  };
  return {
    note: (what, value) => print(what, value),
    none: (what, value) => judge(what, value, value === 0, String(value)),
    atMost: (what, value, most, unit) => judge(what, value, value <= most, `${Math.round(value)} ${unit}`),
    failures: () => failures,
  };
}
