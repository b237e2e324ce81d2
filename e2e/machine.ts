import { readFileSync, readdirSync } from 'node:fs';

const fieldsOf = (path: string): readonly string[] => {
  const text = readFileSync(path, 'utf8');
  // A program's name may have blanks in it.
  return text.slice(text.lastIndexOf(')') + 2).split(' ');
};

/** Ticks of processor that all of the machine took, and that its host took from it (proc(5), stat). */
function machineTicks(): number {
  const [user, nice, system, , , irq, softirq, steal] = /^cpu +(.*)$/m
    .exec(readFileSync('/proc/stat', 'utf8'))![1]!
    .split(' ')
    .map(Number);
  return user! + nice! + system! + irq! + softirq! + steal!;
}

/** Ticks of each process of this test run: of what started it, and of all that was started by that. */
function ownTicks(): ReadonlyMap<string, number> {
  const all = new Map<string, { readonly parent: string; readonly ticks: number }>();
  for (const pid of readdirSync('/proc')) {
    if (!/^\d+$/.test(pid)) continue;
    try {
      const f = fieldsOf(`/proc/${pid}/stat`);
      all.set(pid, { parent: f[1]!, ticks: Number(f[11]) + Number(f[12]) });
    } catch {
      // It ended meanwhile.
    }
  }
  const root = String(process.ppid);
  const isOwn = (pid: string | undefined): boolean =>
    pid !== undefined && all.has(pid) && (pid === root || isOwn(all.get(pid)!.parent));
  return new Map([...all].filter(([pid]) => isOwn(pid)).map(([pid, { ticks }]) => [pid, ticks]));
}

const TICKS_PER_SECOND = 100;

/** From now on; the function gives how many cores others than this test run have kept busy since, on average. */
export function othersSince(): () => number {
  const start = Date.now();
  const machine = machineTicks();
  const own = ownTicks();
  return () => {
    const ours = [...ownTicks()].reduce((sum, [pid, ticks]) => sum + ticks - (own.get(pid) ?? 0), 0);
    const others = machineTicks() - machine - ours;
    return Math.max(0, others / TICKS_PER_SECOND / ((Date.now() - start) / 1000));
  };
}
