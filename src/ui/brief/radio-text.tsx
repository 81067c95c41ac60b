'use client'
import { useMemo } from 'react'
import { policyWidths } from '../../core/brief/policies'
import { radioModes } from '../../core/catalogue/values'
import { bands } from '../../core/regulatory/blocks'
import { isShortRange, legalBlocks } from '../../core/regulatory/legal'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, TextField } from './fields'
import { PlainFields } from './plain-fields'

const plain = { section: 'radio', kinds: ['flag', 'choice', 'number'] } as const

/** The radio policy. */
export function RadioText() {
  const { brief, country, change } = useBrief()
  const { radio } = brief
  const hasShortRange = useMemo(() => country !== undefined && legalBlocks(country).some(isShortRange), [country])
  const used = radio.bands.map(({ band }) => band)
  return (
    <>
      <p>
        Units hang{' '}
        <Choice
          path="radio.environment"
          label="Where units hang"
          options={[
            { value: 'indoor', words: 'indoors' },
            { value: 'outdoor', words: 'outdoors' },
          ]}
        />
        , unless a floor of the plan says otherwise. They use{' '}
        {radio.bands.map(({ band }, index) => (
          <span key={band}>
            {index > 0 && ', '}
            {band} GHz at{' '}
            <Choice
              path={`radio.bands.${index}.width`}
              label={`Width at ${band} GHz`}
              read={Number}
              options={policyWidths.map((width) => ({ value: String(width), words: `${width} MHz` }))}
            />{' '}
            <Choice
              path={`radio.bands.${index}.mode`}
              label={`Newest wireless mode at ${band} GHz`}
              read={(value) => (value === 'any' ? undefined : value)}
              write={(value) => (value === undefined ? 'any' : String(value))}
              options={[
                { value: 'any', words: 'in every mode' },
                ...radioModes.map((mode) => ({ value: mode, words: `up to 802.11${mode}` })),
              ]}
            />
            {radio.bands.length > 1 && (
              <button
                type="button"
                className={classes.remove}
                aria-label={`leave out ${band} GHz`}
                onClick={() =>
                  change(
                    'radio.bands',
                    radio.bands.filter((each) => each.band !== band),
                  )
                }
              >
                leave out
              </button>
            )}
          </span>
        ))}
        .{' '}
        {bands
          .filter((band) => !used.includes(band))
          .map((band) => (
            <button
              key={band}
              type="button"
              className={classes.add}
              onClick={() =>
                change(
                  'radio.bands',
                  [...radio.bands, { band, width: band === '2.4' ? 20 : 40 }].sort(
                    (a, b) => bands.indexOf(a.band) - bands.indexOf(b.band),
                  ),
                )
              }
            >
              Use {band} GHz too
            </button>
          ))}
      </p>
      <Faults under={['radio.bands', 'radio.environment']} />
      <p>
        Channels that must listen for radar are{' '}
        <Choice
          path="radio.radar"
          label="Radar channels"
          options={[
            { value: 'avoid', words: 'avoided' },
            { value: 'welcome', words: 'welcome' },
          ]}
        />
        . A radio that is disturbed{' '}
        <Choice
          path="radio.narrower"
          label="Narrower channels"
          options={[
            { value: 'allowed', words: 'may be made narrower' },
            { value: 'never', words: 'keeps its width' },
          ]}
        />
        . <PlainFields {...plain} path="radio" />
        {used.includes('2.4') && (
          <>
            Radios at 2.4 GHz that hear three others loudly on their channel{' '}
            <Choice
              path="radio.crowded24"
              label="Too many radios at 2.4 GHz"
              options={[
                { value: 'stay-on', words: 'stay on' },
                { value: 'switch-off', words: 'are switched off' },
              ]}
            />
            . At 2.4 GHz the channels are{' '}
            <Choice
              path="radio.raster24"
              label="Channels at 2.4 GHz"
              options={[
                { value: '1-6-11', words: '1, 6, 11' },
                { value: '1-5-9-13', words: '1, 5, 9, 13' },
              ]}
            />
            .{' '}
          </>
        )}
        {hasShortRange && used.includes('5') && (
          <>
            Channels above 5725 MHz, at 25 mW here, are{' '}
            <Choice
              path="radio.shortRange"
              label="Channels above 5725 MHz"
              options={[
                { value: 'left-out', words: 'left out' },
                { value: 'used', words: 'used too' },
              ]}
            />
            .{' '}
          </>
        )}
        {used.includes('6') && (
          <>
            At 6 GHz units use{' '}
            <Choice
              path="radio.scanning6"
              label="Channels at 6 GHz"
              options={[
                { value: 'preferred', words: 'preferred scanning channels' },
                { value: 'any', words: 'any channel' },
              ]}
            />
            .
          </>
        )}
      </p>
      <p>
        The weakest device speaks at{' '}
        <TextField path="radio.power.clientDbm" label="Power of the weakest device, dBm" kind="number" face="mono" />
        {' dBm, and units match it; 2.4 GHz is '}
        <TextField path="radio.power.lowerAt24Db" label="How much quieter 2.4 GHz is, dB" kind="number" face="mono" />
        {' dB quieter.'}
      </p>
      <Faults under={['radio']} except={['radio.bands', 'radio.environment']} />
    </>
  )
}
