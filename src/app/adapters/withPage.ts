/**
 * Workers end with the page that started them. A browser may put a page aside instead of ending it, to have it
 * ready when somebody goes back: its workers would be frozen half started, which brought Chromium down where a
 * service worker stood behind the page, and what comes back would play by a clock that stood still, on a show
 * that another tab has changed since. So they are ended when the page is left, and a page that comes back is
 * loaded anew; what was typed is saved by then.
 */
export class WithPage {
  /** Nothing is started for a page that was left. */
  left = false;
  private readonly workers = new Set<Pick<Worker, 'terminate'>>();

  constructor(page: Pick<EventTarget, 'addEventListener'>, loadAnew: () => void) {
    page.addEventListener('pagehide', () => {
      this.left = true;
      for (const worker of this.workers) worker.terminate();
      this.workers.clear();
    });
    page.addEventListener('pageshow', (event) => {
      if ((event as PageTransitionEvent).persisted) loadAnew();
    });
  }

  /** A worker that lives no longer than the page. */
  keep<W extends Pick<Worker, 'terminate'>>(worker: W): W {
    this.workers.add(worker);
    return worker;
  }

  /** Ends a worker before that. */
  end(worker: Pick<Worker, 'terminate'>): void {
    this.workers.delete(worker);
    worker.terminate();
  }
}
