import { TextDecoder, TextEncoder } from 'node:util';

/** What browsers have and jsdom lacks; component tests run in jsdom. */
globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder;
if (globalThis.window) {
  window.CSS ??= { escape: (text) => text.replace(/[^\w-]/g, (one) => `\\${one}`) };
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  window.matchMedia ??= () => ({ matches: false, addEventListener() {}, removeEventListener() {} });
  window.HTMLElement.prototype.scrollIntoView ??= () => {};
  window.HTMLElement.prototype.scrollTo ??= () => {};
  window.HTMLElement.prototype.hasPointerCapture ??= () => false;
  window.HTMLCanvasElement.prototype.getContext = () => null;
}
