/** The value of a map under a key; made and entered on first use. */
export function entry<K, V>(map: Map<K, V>, key: K, make: () => V): V {
  let value = map.get(key);
  if (value === undefined) {
    value = make();
    map.set(key, value);
  }
  return value;
}

/** Adds to the list that a map has under a key. */
export function addTo<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

/** A list in groups, each in the order of the list. */
export function groupBy<K, V>(list: Iterable<V>, keyOf: (item: V) => K): Map<K, V[]> {
  const groups = new Map<K, V[]>();
  for (const item of list) addTo(groups, keyOf(item), item);
  return groups;
}

/** Adds a list to the end of another, however long it is: as arguments of one call, very many would be too many. */
export function append<T>(list: T[], more: Iterable<T>): void {
  for (const item of more) list.push(item);
}

/** The least and the greatest of some numbers; 0 and 0 of none. */
export function extent(numbers: Iterable<number>): readonly [least: number, greatest: number] {
  let least = Number.POSITIVE_INFINITY;
  let greatest = Number.NEGATIVE_INFINITY;
  for (const n of numbers) {
    if (n < least) least = n;
    if (n > greatest) greatest = n;
  }
  return least > greatest ? [0, 0] : [least, greatest];
}
