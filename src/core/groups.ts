/** What a map has under a key, made when it is first asked for. */
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
