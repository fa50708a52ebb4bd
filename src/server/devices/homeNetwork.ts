import type { RequestListener } from 'node:http';
import { createServer, type Server } from 'node:https';
import { hostname } from 'node:os';
import { inUrl, localName } from '../../core/devices/homeAddresses';
import { limitServer } from '../http/limits';
import { homeAddresses } from './addresses';
import type { Authority } from './authority';

/** Addresses change when a machine moves or a router gives out new ones; certificates run out. */
const LOOK_AGAIN_MS = 30_000;

/** How the home network stands. */
export interface HomeNetworkState {
  listening: boolean;
  port: number;
  /** Hosts under which the machine answers, addresses first, as they stand in web addresses. */
  hosts: string[];
  /** SHA-256 of the authority's certificate. */
  fingerprint: string | null;
  /** Why it does not listen though it is on. */
  fault: string | null;
}

/** Listens on the addresses of the home network, while that is on. */
export class HomeNetwork {
  private authority: Authority | null = null;
  private readonly servers = new Map<string, Server>();
  private timer: ReturnType<typeof setInterval> | null = null;
  private hosts: string[] = [];
  private fault: string | null = null;
  private shown = '';
  private turn: Promise<void> = Promise.resolve();

  /**
   * @param directory of the data
   * @param chosen addresses in place of the machine's own, see {@link homeAddresses}
   */
  constructor(
    private readonly directory: string,
    readonly port: number,
    private readonly chosen: string | undefined,
    private readonly listener: RequestListener,
    private readonly machine: string = hostname(),
  ) {}

  state(): HomeNetworkState {
    return {
      listening: this.servers.size > 0,
      port: this.port,
      hosts: this.hosts,
      fingerprint: this.authority?.fingerprint ?? null,
      fault: this.fault,
    };
  }

  /** PEM of the authority; null before it was first switched on. */
  authorityCertificate(): string | null {
    return this.authority?.certificate ?? null;
  }

  /** Whether a host, with its port, is one of ours. */
  isOurs(host: string): boolean {
    const name = host.toLowerCase().replace(/:\d+$/, '');
    return this.hosts.includes(name) && host.toLowerCase() === `${name}:${this.port}`;
  }

  async turnOn(): Promise<void> {
    if (this.timer === null) {
      this.timer = setInterval(() => void this.look(), LOOK_AGAIN_MS);
      this.timer.unref();
    }
    await this.look();
  }

  async turnOff(): Promise<void> {
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
    await this.inTurn(async () => {
      for (const address of [...this.servers.keys()]) this.close(address);
      this.hosts = [];
      this.fault = null;
    });
  }

  /** Brings what listens, and under which certificate, in line with the addresses that the machine has now. */
  private look(): Promise<void> {
    return this.inTurn(async () => {
      try {
        // Who keeps to this machine needs no certificates, and reading what makes them takes a third of the start.
        this.authority ??= await (await import('./authority')).openAuthority(this.directory, this.machine);
        const addresses = homeAddresses(this.chosen);
        const name = localName(this.machine);
        const identity = await this.authority.identityFor(
          [name, 'localhost'],
          [...addresses, '127.0.0.1'],
          Date.now(),
        );
        this.fault = addresses.length === 0 ? 'This machine has no address in a home network now.' : null;
        for (const address of [...this.servers.keys()]) if (!addresses.includes(address)) this.close(address);
        if (identity.chain !== this.shown) {
          for (const server of this.servers.values()) {
            server.setSecureContext({ key: identity.key, cert: identity.chain });
          }
          this.shown = identity.chain;
        }
        for (const address of addresses) {
          if (!this.servers.has(address)) await this.listen(address, identity.key, identity.chain);
        }
        this.hosts = [...[...this.servers.keys()].map(inUrl), ...(this.servers.size > 0 ? [name] : [])];
      } catch (error) {
        this.fault = error instanceof Error ? error.message : String(error);
        console.error('The home network:', this.fault);
      }
    });
  }

  private listen(address: string, key: string, cert: string): Promise<void> {
    const server = createServer({ key, cert, minVersion: 'TLSv1.2' }, this.listener);
    limitServer(server);
    return new Promise((resolve, reject) => {
      server.once('error', (error: NodeJS.ErrnoException) =>
        reject(
          error.code === 'EADDRINUSE'
            ? new Error(
                `Port ${this.port} is taken on ${address}. Choose another one with OCULENT_HOME_PORT.`,
              )
            : error,
        ),
      );
      server.listen(this.port, address, () => {
        server.removeAllListeners('error');
        // A device that speaks no TLS, or another one, is its own affair.
        server.on('error', () => {});
        this.servers.set(address, server);
        resolve();
      });
    });
  }

  private close(address: string): void {
    const server = this.servers.get(address)!;
    this.servers.delete(address);
    server.close();
    server.closeAllConnections();
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    this.turn = this.turn.then(work, work);
    return this.turn;
  }
}

// The pages have a copy of this module of their own; the one that listens therefore lives on the global object.
const holder = globalThis as typeof globalThis & { oculentHome?: HomeNetwork };

export function setHomeNetwork(network: HomeNetwork): void {
  holder.oculentHome = network;
}

/** What listens in this process; null in the development server. */
export function theHomeNetwork(): HomeNetwork | null {
  return holder.oculentHome ?? null;
}
