import useSWR from 'swr';
import { askToKeep, storageState } from '../../adapters/storage';
import { useOffline } from '../../adapters/offline';
import { Button, Soft } from '../../widgets/controls';

const UNITS = ['kB', 'MB', 'GB', 'TB'] as const;

/** Bytes as one reads them. */
function room(bytes: number): string {
  let value = bytes / 1000;
  let unit = 0;
  while (value >= 1000 && unit < UNITS.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${value < 10 ? value.toFixed(1) : String(Math.round(value))} ${UNITS[unit]!}`;
}

/** What the browser stores for this application, what room is left, and whether it may clear it away. */
export function StoragePanel({ changed }: { readonly changed: number }) {
  const { data, mutate } = useSWR(['storage', changed], storageState);
  const offline = useOffline((s) => s.kept);
  if (!data) return null;
  const { used, left, kept } = data;
  return (
    <section aria-label="Storage" style={{ marginTop: 22 }}>
      <h2 style={{ fontSize: 18, marginBottom: 6 }}>Storage of this browser</h2>
      <p>
        {used === null ? 'The browser does not say what it stores.' : `${room(used)} stored by all shows here`}
        {left !== null && `, room for ${room(left)} more`}.
      </p>
      <p style={{ margin: '4px 0 10px' }}>
        {kept
          ? 'The browser keeps it until you clear it yourself.'
          : 'The browser may clear it away when the disk is full, or when this page was not opened for weeks. Export the show to be safe.'}
      </p>
      {!kept && <Button onPress={() => void askToKeep().then(() => mutate())}>Ask the browser to keep it</Button>}
      <p style={{ marginTop: 10 }}>
        {offline
          ? 'The application itself is kept too: it opens without network and without its server.'
          : 'The application itself is not kept in this browser: it needs its server.'}
      </p>
      <p style={{ marginTop: 10 }}>
        <Soft>Saved versions are in this browser only; an exported file has the show as it is now.</Soft>
      </p>
    </section>
  );
}
