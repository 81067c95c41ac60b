import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { readKitCard } from './kit-card'
import { unsafePlaces } from './prompt-template'

const text = readFileSync(join(import.meta.dirname, '../../../data/kit/debian-hostapd.yaml'), 'utf8')
const faultsOf = (card: string) => {
  const reading = readKitCard(card)
  return reading.ok ? [] : reading.faults.map(({ field, reason }) => `${field}: ${english(reason)}`)
}
/** The card with one piece of it changed; the piece is there. */
const changed = (from: string, to: string): string => {
  expect(text).toContain(from)
  return text.replace(from, to)
}

describe('the commands of a card', () => {
  it('name settings of the table, and nothing else', () => {
    expect(faultsOf(text)).toEqual([])
    expect(faultsOf(changed('{{unit.name}} > /etc/hostname', '{{unit.nmae}} > /etc/hostname'))).toEqual([
      'dialect.write.1.commands.0.run: "unit.nmae" is not in the table of settings',
    ])
    expect(faultsOf(changed('sets: [unit.country]', 'sets: [unit.land]'))[0]).toContain(
      '"unit.land" is not in the table of settings',
    )
    expect(faultsOf(changed('unit.name: ^(', 'unit.nick: ^('))).toContainEqual(
      expect.stringContaining('"unit.nick" is not in the table of settings'),
    )
  })

  it('let no value in without its escape', () => {
    expect(faultsOf(changed('hostname {{unit.name}}', 'hostname {{{unit.name}}}'))[0]).toContain(
      'would go in without its escape',
    )
    expect(faultsOf(changed('hostname {{unit.name}}', 'hostname {{&unit.name}}'))[0]).toContain(
      'would go in without its escape',
    )
    expect(faultsOf(changed('hostname {{unit.name}}', 'hostname {{>unit.name}}'))[0]).toContain('is not allowed')
    expect(faultsOf(changed('hostname {{unit.name}}', 'hostname "{{unit.name}}"'))[0]).toContain(
      '{{unit.name}} stands within quotes',
    )
    expect(faultsOf(changed('hostname {{unit.name}}', "sh -c 'hostname {{unit.name}}'"))[0]).toContain(
      '{{unit.name}} stands within quotes',
    )
  })

  it.each([
    ['spaces in its braces', 'hostname "{{ unit.name }}"', '{{unit.name}} stands within quotes'],
    ['backticks', 'echo `hostname {{unit.name}}`', '{{unit.name}} stands behind `'],
    ['a here-document', 'cat > x <<E\n{{unit.name}}\nE', '{{unit.name}} stands behind <<'],
    ['arithmetic', 'echo $(({{unit.name}}))', '{{unit.name}} stands behind (('],
    ['a backslash before it', 'echo \\{{unit.name}}', '{{unit.name}} stands right behind \\'],
    // biome-ignore lint/suspicious/noTemplateCurlyInString: a shell's dollar
    ['a dollar before it', 'echo ${{unit.name}}', '{{unit.name}} stands right behind $'],
    ['a command within double quotes', 'echo "$(echo "{{unit.name}}")"', '{{unit.name}} stands behind $('],
    ['an apostrophe in a comment', "true # it's\necho '{{unit.name}}'", '{{unit.name}} stands behind #'],
    [
      'a quote in a condition',
      "{{#unit.location}}'{{/unit.location}} {{unit.name}}'",
      'quotes begin or end within {{#unit.location}}',
    ],
  ])('let no value in where it would not be one word: %s', (_what, run, fault) => {
    expect(english(unsafePlaces(run, 'shell'))).toContain(fault)
  })

  it('may hold values wherever they are one word', () => {
    for (const run of [
      'sh -c \'echo "$1"\' - {{unit.name}}',
      'x=$(printf %s {{unit.name}})',
      'a{{unit.name}}b # end',
      'echo "a" {{#unit.location}}\'b\' {{unit.location}}{{/unit.location}}',
    ])
      expect(unsafePlaces(run, 'shell')).toEqual([])
  })

  it('read and set whatever the card says that the model can', () => {
    expect(faultsOf(changed('sets: [unit.name]', 'sets: [unit.location]'))).toEqual([
      'can.unit.name: no command sets "unit.name"',
    ])
    expect(faultsOf(changed('        network.cipher: ^rsn_pairwise=(?<value>\\S+)$\n', ''))).toEqual([
      'can.network.cipher: no command reads "network.cipher"',
    ])
    expect(
      faultsOf(changed('    radio.beacon-interval,\n', '    radio.beacon-interval,\n    network.hours,\n')),
    ).toEqual(['can.network.hours: no command reads "network.hours"'])
  })

  it('tell parts apart where they read networks or radios', () => {
    expect(faultsOf(changed('      starts: ^radio=(?<of>\\S+)$\n', ''))[0]).toContain('per radio takes "starts"')
    expect(faultsOf(changed('radio.channel: ^channel', 'unit.location: ^channel'))).toContainEqual(
      expect.stringContaining('"unit.location" is not a setting of a radio'),
    )
  })
})

describe('the units of a controller, in its card', () => {
  const own = readFileSync(join(import.meta.dirname, '../../../tests/support/cards/brackwater-b9.yaml'), 'utf8')
  const faults = (from: string, to: string): string[] => {
    expect(own).toContain(from)
    return faultsOf(own.replace(from, to))
  }

  it('are named in the commands that are theirs, and in no others', () => {
    expect(faultsOf(own)).toEqual([])
    expect(faults('run: "regdom {{unit.country}}"', 'run: "point {{unit.mac}} {{unit.country}}"')).toEqual([
      'dialect.write.0.commands.0.run: unit.mac and unit.serial are known in the part "units" alone',
    ])
    expect(faults('call {{unit.name}}" }] }', "call '{{unit.name}}'\" }] }")).toEqual([])
    expect(faults('"point {{unit.mac}} in"', '"point \\"{{unit.mac}}\\" in"')[0]).toContain('within quotes')
  })

  it('are read by what is known of them before they are read', () => {
    expect(faults('- run: tell point {{unit.mac}}', '- run: tell point {{unit.name}}')).toEqual([
      'dialect.units.read.0.run: {{unit.name}} is not known while it is read',
    ])
    expect(faults('starts: "^point (?<of>[0-9a-f:]{17})$"', 'starts: "^point"')[0]).toContain('(?<of>')
  })

  it('have a state that says that they have joined, and carry no networks of their own', () => {
    expect(faults('works: run', 'works: configuring')[0]).toContain('one of them says that it has joined')
    const perNetwork = faults('per: radio\n        starts: ^air', 'per: network\n        starts: ^air')
    expect(perNetwork.join()).toContain('carries the networks of its controller')
  })

  it('and what radios really do is told, where it has any', () => {
    const b7 = readFileSync(join(import.meta.dirname, '../../../data/kit/brackwater-b7.yaml'), 'utf8')
    expect(faultsOf(b7.slice(0, b7.indexOf('  air:\n    run: tell air now')))).toEqual([
      'dialect.air: a command tells what its radios really do',
    ])
  })
})
