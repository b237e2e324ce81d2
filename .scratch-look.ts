import { Browser } from './e2e/browser';
import { injectMidi, plug, left, arrive } from './e2e/standInMidi';
const b = await Browser.open();
const wait = (ms: number) => new Promise(r => setTimeout(r, ms));
try {
  await injectMidi(b);
  await b.go('http://127.0.0.1:8177/demo');
  await b.find('heading', 'The set');
  await b.click('link', 'Rig'); await b.click('link', 'Ports');
  await b.click('button', "Use this computer's ports");
  await plug(b, 'Foot board'); await wait(500);
  await b.pick(/Feet hears$/, 'Foot board'); await wait(500);
  await b.click('link', 'Reactions');
    await b.click('button', 'Add a reaction');
    await b.click('button', 'Learn what it waits for');
    await arrive(b, 'Foot board', 0xb4, 99, 127);
    await wait(500);
    await b.click('button', 'Take it');
    await wait(500);
    await b.click('link', 'Set'); await wait(500);
    await b.click('button', 'Play Nine Fathoms now'); await wait(800);
    await b.click('button', 'Stop'); await wait(300);
    await b.click('link', 'Rig'); await b.click('link', 'Reactions');
    await arrive(b, 'Foot board', 0xb4, 99, 127); await wait(1200);
  await b.picture('/tmp/l1.png');
  const logs = await b.driver.manage().logs().get('browser'); for (const l of logs) console.log(l.level.name, l.message);
} finally { await b.close(); }
