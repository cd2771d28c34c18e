import '@testing-library/jest-dom';
import { configure } from '@testing-library/react';
import { TextDecoder, TextEncoder } from 'node:util';

// How long a test waits for what is to appear, on a machine that does other things as well.
configure({ asyncUtilTimeout: 20_000 });

// What browsers have and jsdom lacks: it neither encodes text nor lays anything out to scroll in.
Object.assign(globalThis, { TextDecoder, TextEncoder });
Element.prototype.scrollIntoView = () => undefined;

// Charts ask how large they are; nothing has a size here.
globalThis.ResizeObserver = class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
