/** How far a worker is, told over a port of its own: what arrives there after the answer is old news. */
import * as Comlink from 'comlink';

export type Tell = (share: number) => void;

/** Asks with a way to tell how far it is, 0 to 1, which is heard until the answer is in. */
export async function whileAsked<T>(tell: Tell, ask: (tell: Tell) => Promise<T>): Promise<T> {
  let over = false;
  try {
    return await ask(Comlink.proxy((share: number) => void (over || tell(share))));
  } finally {
    over = true;
  }
}
