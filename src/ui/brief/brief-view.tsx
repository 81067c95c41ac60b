'use client'
import { Button } from '@mantine/core'
import { useHotkeys } from '@mantine/hooks'
import type { PaperLanguage } from '../../core/brief/brief'
import { newNetwork } from '../../core/brief/wireless-network'
import type { CountryRules } from '../../core/regulatory/database'
import { StandingNote } from '../live/standing-note'
import sheet from '../theme/sheet.module.css'
import { AdminText } from './admin-text'
import { AftercareText } from './aftercare-text'
import classes from './brief.module.css'
import { BriefDraftProvider, useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, type Option, TextField, YesNo } from './fields'
import { JobFile } from './job-file'
import { NetworkText } from './network-text'
import { RadioText } from './radio-text'
import { Section } from './section'
import { newSubnet, SiteSubnets } from './site-subnets'
import { SubnetText } from './subnet-text'

interface Props {
  readonly countries: readonly Option[]
  readonly rules: ReadonlyMap<string, CountryRules>
}

/** What the site is to have, written like a page for the client. */
export function BriefView({ countries, rules }: Props) {
  return (
    <BriefDraftProvider rules={rules}>
      <BriefPage countries={countries} />
    </BriefDraftProvider>
  )
}

const paperLanguageOptions = [
  { value: 'en', words: 'in English' },
  { value: 'de', words: 'in German' },
] as const satisfies readonly { value: PaperLanguage; words: string }[]

function BriefPage({ countries }: { countries: readonly Option[] }) {
  const { brief, standing, undoable, undo, reload, change } = useBrief()

  // In a field too: what is undone is the brief, not the letters of one field.
  useHotkeys([['mod+Z', undo]], [])

  return (
    <div className={classes.view}>
      <div className={sheet.head}>
        <h1>What the site is to have</h1>
        <StandingNote standing={standing} onLoad={reload} />
        <div className={sheet.headRight}>
          <Button variant="default" disabled={undoable === 0} onClick={undo}>
            Undo
          </Button>
          <JobFile />
        </div>
      </div>
      <div className={classes.paper}>
        <Section id="site" title="The site">
          <p>
            For <TextField path="client" label="Client" placeholder="the client" /> at{' '}
            <TextField path="site" label="Site" placeholder="the site" />, in{' '}
            <Choice path="country" label="Country" options={countries} />. Clocks show{' '}
            <TextField path="timeZone" label="Time zone" placeholder="time zone" /> time, told by{' '}
            <TextField path="ntpServers" label="Time servers" kind="list" face="mono" placeholder="time servers" />. The
            client’s papers are{' '}
            <Choice path="papersIn" label="Language of the client’s papers" options={paperLanguageOptions} />.
          </p>
          <Faults under={['client', 'site', 'country', 'papersIn', 'timeZone', 'ntpServers']} />
        </Section>
        <Section id="management" title="The management network">
          <SubnetText path="management" />
          <p>
            Units get their address{' '}
            <Choice
              path="addressing"
              label="How units get their address"
              options={[
                { value: 'static', words: 'from the plan, static' },
                { value: 'dhcp', words: 'by DHCP, reserved for each' },
              ]}
            />
            {brief.management.vlan !== null && (
              <>
                , and are managed{' '}
                <YesNo
                  path="managementTagged"
                  label="Management with a VLAN tag"
                  yes={`on VLAN ${brief.management.vlan}, with its tag`}
                  no="without a tag"
                />
              </>
            )}
            .
          </p>
          <Faults under={['addressing', 'managementTagged']} />
        </Section>
        <Section
          id="networks"
          title={brief.networks.length === 1 ? 'The wireless network' : 'The wireless networks'}
          act={
            brief.networks.length < 16 && (
              <button
                type="button"
                className={classes.add}
                onClick={() =>
                  change('networks', [...brief.networks, freshNetwork(brief.networks.map(({ id }) => id))])
                }
              >
                Add a network
              </button>
            )
          }
        >
          {brief.networks.length === 0 && <p className="soft">None yet. Add the first.</p>}
          {brief.networks.map((network, index) => (
            <NetworkText key={network.id} index={index} />
          ))}
          <Faults under={['networks']} except={brief.networks.map((_, index) => `networks.${index}`)} />
        </Section>
        <Section
          id="subnets"
          title="The site's other subnets"
          act={
            <button
              type="button"
              className={classes.add}
              onClick={() => change('subnets', [...brief.subnets, newSubnet(brief)])}
            >
              Add a subnet
            </button>
          }
        >
          <SiteSubnets />
        </Section>
        <Section id="radio" title="The radios">
          <RadioText />
        </Section>
        <Section id="admin" title="Signing in to the units">
          <AdminText />
        </Section>
        <Section id="aftercare" title="When the installer has left">
          <AftercareText />
        </Section>
      </div>
    </div>
  )
}

function freshNetwork(taken: readonly string[]) {
  let number = taken.length + 1
  while (taken.includes(`network-${number}`)) number += 1
  return newNetwork(`network-${number}`, `Network ${number}`)
}
