/** What `make` prepares, remembered from the last time for as long as it is asked for with the same. */
export function lastMade<Asked extends unknown[], Made>(make: (...asked: Asked) => Made) {
  let last: { name: string; made: Made } | undefined;
  return (...asked: Asked): Made => {
    const name = JSON.stringify(asked);
    if (last?.name !== name) last = { name, made: make(...asked) };
    return last.made;
  };
}
