import { Browser, Key } from './e2e/browser';
const b = await Browser.open();
const size = (width: number, height: number) => b.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: false });
try {
  await b.go('http://127.0.0.1:4411/demo');
  await b.find('heading', 'The set');
  const url = await b.driver.getCurrentUrl();
  const views: [string, string][] = [['/chart/slack-tide', 'chart'], ['/chart/rope-ledger', 'chart2']];
  for (const [w, h] of [[1024, 768], [1280, 800]] as const) {
    await size(w, h);
    for (const [path, name] of views) {
      await b.go(url + path);
      await new Promise(r => setTimeout(r, 1800));
      if (name === 'chart') { await b.click('radio', 'Sound'); await new Promise(r => setTimeout(r, 400)); }
      if (name === 'tones') { await b.type(Key.TAB, Key.TAB, Key.TAB, Key.TAB); await new Promise(r => setTimeout(r, 200)); }
      await b.picture(`/tmp/s-${name}-${w}.png`);
    }
  }
} finally { await b.close(); }
