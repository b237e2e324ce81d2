import { Browser } from './e2e/browser';
const b = await Browser.open();
const size = (width: number, height: number) => b.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: false });
try {
  await b.go('http://127.0.0.1:4411/demo');
  await b.find('heading', 'The set');
  const url = await b.driver.getCurrentUrl();
  await b.go(url + '/chart/slack-tide');
  await b.find('button', '9|1 Ledger Rhythm, proven');
  await new Promise(r => setTimeout(r, 600));
  await b.picture('/tmp/c1.png');
  await b.click('button', 'Whole song');
  await new Promise(r => setTimeout(r, 600));
  await b.picture('/tmp/c2.png');
  await size(1920, 1080);
  await new Promise(r => setTimeout(r, 800));
  await b.picture('/tmp/c3.png');
} finally { await b.close(); }
