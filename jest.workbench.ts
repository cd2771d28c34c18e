import '@testing-library/jest-dom';
import { TextDecoder, TextEncoder } from 'node:util';

// What browsers have and jsdom lacks: it neither encodes text nor lays anything out to scroll in.
Object.assign(globalThis, { TextDecoder, TextEncoder });
Element.prototype.scrollIntoView = () => undefined;
