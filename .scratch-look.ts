import { Browser } from './e2e/browser';
import { injectMidi, plug } from './e2e/standInMidi';
const b = await Browser.open();
const wait = (ms: number) => new Promise(r => setTimeout(r, ms));
try {
  await injectMidi(b);
  await b.go('http://127.0.0.1:8177/');
  await b.click('button', 'New show'); await wait(800);
  const url = (await b.driver.getCurrentUrl()).replace(/\/$/, '');
  await b.go(url + '/rig/reactions'); await wait(1000);
  await b.click('button', 'Add a reaction'); await wait(400);
  await b.picture('/tmp/l1.png');
  await b.click('link', 'Ports'); await wait(600);
  await b.picture('/tmp/l2.png');
  await b.click('link', 'Set'); await wait(600); await b.picture('/tmp/l3.png');
  await b.click('link', 'Mix'); await wait(600); await b.picture('/tmp/l4.png');
  await b.go('http://127.0.0.1:8177/demo'); await b.find('heading', 'The set');
  await b.click('link', 'Rig'); await b.click('link', 'Ports');
  await b.click('button', "Use this computer's ports"); await plug(b, 'Grey box'); await plug(b, 'Foot board'); await wait(400);
  await b.pick(/Rack sends to$/, 'Grey box'); await wait(600);
  await b.click('button', 'Ask who hangs on Rack'); await wait(2300);
  await b.picture('/tmp/l5.png');
} finally { await b.close(); }
