import { create } from 'zustand';

/** A file that somebody wants in the show: dropped on the page, or chosen. `nth` tells one from the next. */
export const useDropped = create<{ readonly file: File | null; readonly nth: number }>(() => ({ file: null, nth: 0 }));

export const dropFile = (file: File | null): void => useDropped.setState(({ nth }) => ({ file, nth: nth + 1 }));

/** Takes files that are dropped anywhere on the page. `over` is told while one is held above it. Gives the way to stop. */
export function watchDrops(take: (file: File) => void, over: (held: boolean) => void): () => void {
  const carries = (e: DragEvent): boolean => e.dataTransfer?.types.includes('Files') ?? false;
  // Going from one element to another leaves the first after entering the second.
  let depth = 0;
  const onEnter = (e: DragEvent): void => {
    if (!carries(e)) return;
    depth += 1;
    over(true);
  };
  const onLeave = (e: DragEvent): void => {
    if (!carries(e)) return;
    depth = Math.max(0, depth - 1);
    if (depth === 0) over(false);
  };
  const onOver = (e: DragEvent): void => {
    // Else the browser opens the file in place of the application.
    if (carries(e)) e.preventDefault();
  };
  const onDrop = (e: DragEvent): void => {
    if (!carries(e)) return;
    depth = 0;
    over(false);
    if (e.defaultPrevented) return;
    e.preventDefault();
    const file = e.dataTransfer?.files[0];
    if (file) take(file);
  };
  window.addEventListener('dragenter', onEnter);
  window.addEventListener('dragleave', onLeave);
  window.addEventListener('dragover', onOver);
  window.addEventListener('drop', onDrop);
  return () => {
    window.removeEventListener('dragenter', onEnter);
    window.removeEventListener('dragleave', onLeave);
    window.removeEventListener('dragover', onOver);
    window.removeEventListener('drop', onDrop);
  };
}
