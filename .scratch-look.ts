import { Browser } from './e2e/browser';
const FAKE = `(() => {
  const make = (id, name, type) => { const p = new EventTarget(); Object.assign(p, { id, name, manufacturer: 'Pier', type, state: 'connected', connection: 'open', onmidimessage: null, send(b, t) { (window.__sent ||= []).push([id, [...b], t, performance.now()]); } }); return p; };
  const access = new EventTarget(); access.inputs = new Map(); access.outputs = new Map(); access.sysexEnabled = true;
  access.plug = (id, name) => { access.inputs.set('i' + id, make('i' + id, name, 'input')); access.outputs.set('o' + id, make('o' + id, name, 'output')); access.dispatchEvent(new Event('statechange')); };
  access.pull = (id) => { access.inputs.delete('i' + id); access.outputs.delete('o' + id); access.dispatchEvent(new Event('statechange')); };
  access.plug(1, 'Grey box'); access.plug(2, 'Foot board');
  window.__midi = access;
  navigator.requestMIDIAccess = () => Promise.resolve(access);
})()`;
const b = await Browser.open();
try {
  await b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: FAKE });
  await b.go('http://127.0.0.1:8177/demo');
  await b.find('heading', 'The set');
  const url = (await b.driver.getCurrentUrl()).replace(/\/$/, '');
  const wait = (ms: number) => new Promise(r => setTimeout(r, ms));
  await b.go(url + '/rig/ports'); await wait(1200);
  await b.picture('/tmp/l1.png');
  await b.click('button', "Use this computer's ports"); await wait(800);
  await b.click('button', 'Ask who hangs on Rack'); await wait(800);
  await b.click('button', 'Ask who hangs on Feet'); await wait(1200);
  await b.picture('/tmp/l2.png');
  await b.go(url + '/rig/reactions'); await wait(1200);
  await b.click('button', 'Add a reaction'); await wait(500);
  await b.click('button', 'Add a reaction'); await wait(500);
  await b.picture('/tmp/l3.png');
} finally { await b.close(); }
