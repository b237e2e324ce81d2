import { Browser } from './e2e/browser';
const b = await Browser.open();
try {
  await b.go('http://127.0.0.1:8177/demo');
  await b.find('heading', 'The set');
  const url = (await b.driver.getCurrentUrl()).replace(/\/$/, '');
  const wait = (ms: number) => new Promise(r => setTimeout(r, ms));
  await b.go(url + '/set'); await wait(1200);
  await b.picture('/tmp/l1.png');
  await b.go(url + '/set/mix'); await wait(1200);
  await b.picture('/tmp/l2.png');
  await b.go(url + '/set/tonight'); await wait(1500);
  await b.click('button', /Tarn tonight/); await wait(300); await b.click('option', 'off'); await wait(800);
  await b.click('button', /Thistle Echo tonight/); await wait(300); await b.click('option', /spare/); await wait(2500);
  await b.picture('/tmp/l3.png');
} finally { await b.close(); }
