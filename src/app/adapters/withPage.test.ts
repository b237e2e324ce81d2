import { describe, expect, it, vi } from 'vitest';
import { WithPage } from './withPage';

const leave = (page: EventTarget, name: 'pagehide' | 'pageshow', persisted: boolean): boolean =>
  page.dispatchEvent(Object.assign(new Event(name), { persisted }));

const setUp = () => {
  const page = new EventTarget();
  const loadAnew = vi.fn<() => void>();
  return { page, loadAnew, withPage: new WithPage(page, loadAnew) };
};
const worker = () => ({ terminate: vi.fn<() => void>() });

describe('workers and the page that started them', () => {
  it('end together, whether the page is put aside or ended', () => {
    for (const persisted of [true, false]) {
      const { page, withPage } = setUp();
      const both = [withPage.keep(worker()), withPage.keep(worker())];
      expect(withPage.left).toBe(false);
      leave(page, 'pagehide', persisted);
      expect(withPage.left).toBe(true);
      for (const one of both) expect(one.terminate).toHaveBeenCalledOnce();
    }
  });

  it('are ended once: one that ended before is not ended again', () => {
    const { page, withPage } = setUp();
    const early = withPage.keep(worker());
    withPage.end(early);
    expect(early.terminate).toHaveBeenCalledOnce();
    leave(page, 'pagehide', true);
    leave(page, 'pagehide', true);
    expect(early.terminate).toHaveBeenCalledOnce();
  });

  it('has a page that comes back loaded anew, and one that is shown for the first time left alone', () => {
    const { page, loadAnew } = setUp();
    leave(page, 'pageshow', false);
    expect(loadAnew).not.toHaveBeenCalled();
    leave(page, 'pageshow', true);
    expect(loadAnew).toHaveBeenCalledOnce();
  });
});
