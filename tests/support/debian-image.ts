/**
 * Debian packages that nobody here touched: unpacked, and a bootable image made of them. Built once, kept outside the
 * tree.
 */
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { join } from 'node:path'

const recipe = join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), 'tests/real/access-point')

/** @returns the folder with `out/vmlinux`, `out/initrd`, and the packages below `stage` */
export function builtImage(): string {
  const folder = join(process.env.XDG_CACHE_HOME || join(homedir(), '.cache'), 'air-muster', 'real-ap')
  const mark = createHash('sha256')
  for (const name of readdirSync(recipe, { recursive: true, encoding: 'utf8' }).toSorted()) {
    const path = join(recipe, name)
    if (statSync(path).isFile()) mark.update(`${name}\0`).update(readFileSync(path))
  }
  const recipeMark = mark.digest('hex')
  const made = join(folder, 'made-by')
  if (existsSync(made) && readFileSync(made, 'utf8') === recipeMark) return folder
  mkdirSync(folder, { recursive: true })
  rmSync(made, { force: true })
  execFileSync('bash', [join(recipe, 'build.sh'), folder], { stdio: ['ignore', 'ignore', 'pipe'] })
  writeFileSync(made, recipeMark)
  return folder
}

/** The words that start a program of the unpacked packages, with the libraries that lie beside it. */
export function unpacked(program: string): string[] {
  const stage = join(builtImage(), 'stage')
  const libraries = ['lib', 'usr/lib'].map((folder) => join(stage, folder, 'x86_64-linux-gnu')).join(':')
  return [join(stage, 'lib64/ld-linux-x86-64.so.2'), '--library-path', libraries, join(stage, program)]
}
