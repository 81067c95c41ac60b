/** What stands before a device: a service on loopback in the words of one protocol. */
export interface Front {
  /** Loopback port behind a port of the unit; undefined where this front does not listen there. */
  loopbackPort(port: number): number | undefined
  /** The same for datagrams; absent where a front takes none. */
  datagramPort?(port: number): number | undefined
  /** What a restart, a pulled cable or a new address does to connections. */
  dropConnections(): void
  /** What a reset does on much equipment: it makes itself another certificate or host key. */
  renewIdentity(): Promise<void>
  close(): Promise<void>
}
