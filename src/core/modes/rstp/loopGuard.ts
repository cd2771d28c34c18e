/**
 * Loop guard: a port that kept a loop open and stops hearing BPDUs discards, instead of forwarding as the designated port
 * that the machines make of it (trade practice, without a clause). The next BPDU lets it go.
 */
import { cist, type TreePort } from './state';

/** What a port held has outlived its time. */
export function holdOpenLoop(p: TreePort): void {
  p.loopHeld = p.port.loopGuard;
}

/** A BPDU has come, or the signal has gone. */
export function letLoopGo(p: TreePort): void {
  p.loopHeld = false;
}

/** Whether a port may not forward, be it that a check holds it; outside of its region an instance hears nothing by itself. */
export const keepsLoopOpen = (p: TreePort): boolean => p.loopHeld || p.checkHeld || cist(p.port).loopHeld;
