import type { Browser } from './browser';

const SOURCE = `window.longTasks = [];
new PerformanceObserver((list) => {
  for (const entry of list.getEntries()) window.longTasks.push(entry.duration);
}).observe({ type: 'longtask' });`;

/** From the next page on, the browser notes each task of the page that takes over 50 ms. */
export const watchTasks = (b: Browser): Promise<unknown> =>
  b.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: SOURCE });

/** How long the long tasks since the last time took, in milliseconds, and how many elements the page has. */
export const takeTasks = (b: Browser): Promise<{ readonly tasks: readonly number[]; readonly elements: number }> =>
  b.driver.executeScript(`const tasks = window.longTasks;
    window.longTasks = [];
    return { tasks, elements: document.querySelectorAll('*').length };`);
