import type { Browser } from '@/state/session/outbox';

/** Where this window keeps things, and tells others that it is there. Read when it is used: the server has none of it. */
export const BROWSER: Browser = {
  get storage() {
    return window.localStorage;
  },
  get locks() {
    return window.navigator.locks;
  },
};
