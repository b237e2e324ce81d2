import { Browser } from './e2e/browser';
const b = await Browser.open(); const v = await Browser.open(390, 844);
const wait = (ms: number) => new Promise(r => setTimeout(r, ms));
try {
  await b.go('http://127.0.0.1:8177/demo');
  await b.find('heading', 'The set');
  const url = (await b.driver.getCurrentUrl()).replace(/\/$/, '');
  await b.go(url + '/set/screens'); await wait(1200);
  await b.click('button', 'Share the stage'); await wait(1500);
  await b.picture('/tmp/l1.png');
  const code = await (await b.find('status', 'Code')).getText();
  await v.go('http://127.0.0.1:8177/watch'); await wait(1500);
  await v.picture('/tmp/l2.png');
  await v.fill('textbox', /code/, code + '\n'); await wait(1500);
  await b.click('button', /^Play/); await wait(6000);
  await v.picture('/tmp/l3.png');
  await b.picture('/tmp/l4.png');
} finally { await b.close(); await v.close(); }
