import { Browser } from './e2e/browser';
const b = await Browser.open();
const size = (width: number, height: number) => b.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: false });
try {
  await b.go('http://127.0.0.1:4411/demo');
  await b.find('heading', 'The set');
  const url = await b.driver.getCurrentUrl();
  await size(1280, 1900);
  await b.go(url + '/chart/slack-tide');
  await new Promise(r => setTimeout(r, 2500));
  await b.picture(`/tmp/w-tall.png`);
} finally { await b.close(); }
