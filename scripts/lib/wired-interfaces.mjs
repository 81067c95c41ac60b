// Wired interfaces of this machine, by what the kernel says of them.
import { existsSync, readdirSync, readFileSync } from 'node:fs'

const ethernet = '1'

/** @returns {string[]} names of those that carry Ethernet over a cable; bridges and tunnels are none */
export function wiredInterfaces(folder = '/sys/class/net') {
  if (!existsSync(folder)) return []
  return readdirSync(folder).filter((name) => {
    if (name === 'lo' || existsSync(`${folder}/${name}/wireless`) || existsSync(`${folder}/${name}/bridge`))
      return false
    return existsSync(`${folder}/${name}/device`) && readFileSync(`${folder}/${name}/type`, 'utf8').trim() === ethernet
  })
}
