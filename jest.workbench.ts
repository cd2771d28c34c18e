import '@testing-library/jest-dom';
import { TextDecoder, TextEncoder } from 'node:util';

// What browsers have and jsdom lacks: it neither encodes text nor lays anything out to scroll in.
Object.assign(globalThis, { TextDecoder, TextEncoder });
Element.prototype.scrollIntoView = () => undefined;

// Charts ask how large they are; nothing has a size here.
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
