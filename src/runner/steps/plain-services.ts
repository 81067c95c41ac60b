/** Services that are tried from outside on every unit: by plain HTTP, SSH and Telnet. */
import type { Aftercare } from '../../core/brief/policies'

export const plainServices = [
  {
    code: 'http',
    port: 80,
    setting: 'services.https-only',
    isOpenAt: (value: boolean): boolean => !value,
    isWanted: ({ httpsOnly }: Pick<Aftercare, 'httpsOnly' | 'ssh'>): boolean => !httpsOnly,
  },
  {
    code: 'ssh',
    port: 22,
    setting: 'services.ssh',
    isOpenAt: (value: boolean): boolean => value,
    isWanted: ({ ssh }: Pick<Aftercare, 'httpsOnly' | 'ssh'>): boolean => ssh === 'on',
  },
  {
    code: 'telnet',
    port: 23,
    setting: 'services.telnet',
    isOpenAt: (value: boolean): boolean => value,
    isWanted: (): boolean => false,
  },
] as const
