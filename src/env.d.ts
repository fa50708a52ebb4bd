/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** Null for what comes from the machine itself. */
    caller: import('./server/devices/caller').Caller | null;
  }
}
