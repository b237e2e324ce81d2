import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { bytesOf, showsOfBytes } from '../testing/bytesOf';
import { withoutRoom } from '../testing/withoutRoom';

// So that what only moves code can be seen to move nothing else. Where bytes are meant to change, or the random
// shows: LANTERN_KEEP_BYTES=1 npm run unit -- keptBytes
const file = new URL('../../../fixtures/bytes.txt', import.meta.url);

const lines = (): string[] =>
  [...showsOfBytes()].map(([name, show]) => {
    const sent = bytesOf(withoutRoom(show));
    const hash = createHash('sha256').update(sent.join('\n')).digest('hex').slice(0, 16);
    return `${name} ${sent.length} ${hash}`;
  });

it('sends the bytes of 202 shows as kept, where nothing varies and nothing has margin or guard', () => {
  const made = lines();
  if (process.env.LANTERN_KEEP_BYTES === '1') writeFileSync(file, `${made.join('\n')}\n`);
  const kept = readFileSync(file, 'utf8').trimEnd().split('\n');
  expect(made).toEqual(kept);
});
