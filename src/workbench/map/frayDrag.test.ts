import { fernhollow } from '../../core/demo/demos';
import type { LinkId } from '../../core/model/ids';
import { wishesOf, type FrayEnd } from './frayDrag';

const end = (link: string, side: 'a' | 'b'): FrayEnd => ({ link: link as LinkId, side });

describe('a frayed end that is pulled', () => {
  const demo = fernhollow();
  it('to another link: that one blocks, and the one it came from carries', () =>
    expect(wishesOf(demo, end('l6', 'b'), end('l5', 'b'))).toEqual([
      { wants: 'block', switch: 'dome-east', port: '1' },
      { wants: 'carry', link: 'l6' },
    ]));
  it('to the other end of its link: that end blocks', () =>
    expect(wishesOf(demo, end('l6', 'b'), end('l6', 'a'))).toEqual([{ wants: 'block', switch: 'ridge-b', port: '4' }]));
  it('back to where it was: nothing', () => expect(wishesOf(demo, end('l6', 'b'), end('l6', 'b'))).toBeNull());
  it('to a link that is gone: nothing', () => expect(wishesOf(demo, end('l6', 'b'), end('l99', 'b'))).toBeNull());
});
