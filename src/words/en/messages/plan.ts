import type { Sentences } from '../../../core/message/message'
import type { planMessages } from '../../../core/message/plan'
import { countryName } from '../../../core/regulatory/country'
import { prose } from '../../prose'
import { isOrAre, nameRule, securityName, settingName, settingWithin, subject } from '../parts'

export const planSentences: Sentences<typeof planMessages> = {
  'mac-was': ({ was, now }) => `It was ${was}, and is ${now} now.`,
  'admin-password-another': 'The admin password is another.',
  'cannot-be-mustered': ({ model, why }) => `${model} cannot be mustered: ${why}.`,
  'no-admin-password': 'There is no admin password for this unit yet: have one made in the brief.',
  'locked-to-country': ({ model, country, asked }) =>
    prose`${model} is locked to the country ${country}, and the brief says ${asked}.`,
  'name-unfit': ({ model, name, allowed }) => `${model} does not take the name "${name}": ${nameRule(allowed)}.`,
  'address-outside': ({ address, subnet }) =>
    prose`Its planned address ${address} is not one of ${subnet}: plan again.`,
  'gateway-not-in-subnet': ({ gateway, subnet }) =>
    prose`The gateway ${gateway} is not in ${subnet}: the unit could not reach it. Correct the brief.`,
  'address-is-gateway': ({ address }) => `Its planned address ${address} is that of the gateway: plan again.`,
  'too-many-networks-for-model': ({ count, model, most }) =>
    prose`The brief has ${count} networks; ${model} carries ${most}.`,
  'too-many-networks-on-band': ({ count, band, model, most }) =>
    prose`${count} networks are on ${band} GHz; that radio of ${model} carries ${most}.`,
  'open-not-confirmed': ({
    ssid,
  }) => prose`"${ssid}" has no security: no open network is put on air unless its name is typed a second time in the
    brief.`,
  'radius-server-missing': ({ ssid }) => `"${ssid}" has no RADIUS server: nobody could sign in.`,
  'radius-secret-missing': ({ ssid }) => `"${ssid}" has no RADIUS secret yet.`,
  'passphrase-missing': 'There is no passphrase yet.',
  'of-network': ({ ssid, told }) => `"${ssid}": ${told}`,
  'channel-indoors-only': ({ channel, band, country }) =>
    prose`Channel ${channel} at ${band} GHz is for indoors only in ${country}.`,
  'power-above-limit': ({ dbm, gain, limit, channel }) =>
    prose`${dbm} dBm with a gain of ${gain} dBi is above the limit of ${limit} dBm on channel ${channel}.`,
  'security-unknown-to-model': ({ model, ssid, security }) =>
    prose`${model} cannot carry "${ssid}": it does not know ${securityName(security)}.`,
  'mode-unknown-to-model': ({ model, mode }) => `${model} does not know 802.11${mode} there.`,
  'zone-without-rule': ({ model, zone }) => `${model} takes a rule of POSIX, and ${zone} keeps to none.`,
  'user-is-admin': ({ user, model }) => `${user} is the admin of every ${model}.`,
  'carries-no-networks': 'It carries no networks.',
  'no-radio-for-network': 'It has no radio in use on the bands of this network.',
  'no-radio-of-band': ({ band }) => `It has no ${band} GHz radio.`,
  'controller-has-it': 'Its controller has it, and is set to it.',
  'model-does-not-ask': 'This model does not ask for it.',
  'brief-asks-for-none': 'The brief asks for none.',
  'model-has-none': 'This model does not have it, and the brief asks for none.',
  'hands-as-in-vault': ({ setting }) => `Set ${settingName(setting)} as in the vault.`,
  'not-set-by-muster': ({ model, why }) => `${model} is not set by a muster: ${why}.`,
  'not-taken-by-model': ({ model }) => `${model} does not take it.`,
  'goes-with': ({ setting, model }) =>
    prose`It goes with ${settingWithin(setting)}, which ${model} does not take as asked.`,
  'takes-only': ({ model, values }) => `${model} takes only ${values}.`,
  'has-value': ({ value }) => `It has ${value}.`,
  'hands-bring': ({ setting, value }) => `Bring ${settingWithin(setting)} to ${value}.`,
  'dhcp-reservations': prose`Management: an address reserved for each unit by its MAC; Plan, Addresses has the list
    for the server.`,
  'dhcp-option-3': ({ gateway }) => `Option 3, router, on management: ${gateway}.`,
  'dhcp-option-42': ({ servers }) => `Option 42, time servers, on management: ${servers.join(', ')}.`,
  'dhcp-time-by-name': ({ names }) => `Units ask the time of ${names.join(', ')} by name: no option tells that.`,
  'dhcp-option-138': ({ addresses }) =>
    prose`Option 138, controllers (RFC 5417), on management: ${addresses.join(', ')}.`,
  'dhcp-option-43': ({ vendorClass, hex }) =>
    prose`Option 43, on management, for clients whose option 60 is "${vendorClass}": ${hex}.`,
  'job-name-unfit': 'a job is filed under small letters, digits and dashes, 60 at the most',
  'job-without-name': 'a job takes a name',
  'not-base64': 'this is not base64',
  'not-a-job-file': ({ format }) => `this is not a job file: its format is not "${format}"`,
  'job-file-newer': 'this job file is of another version than 1: take a newer Air Muster',
  'cards-too-large': ({ most }) => `kit cards have ${most} kB altogether at the most`,
  'unit-same': ({ name, what, other, value }) =>
    prose`${name} has the same ${what === 'mac' ? 'MAC' : what} as ${other}: ${value}`,
  'floor-drawn-twice': ({ floor }) => `the floor "${floor}" has two drawings`,
  'floor-unknown': ({ floor }) => `the job has no floor "${floor}"`,
  'drawing-not-what-it-says': ({ type }) => `this says that it is ${type}, and its content is something else`,
  'option-ends-above': 'an option ends above where it begins: highMhz is greater than lowMhz',
  'radio-without-option': 'a radio needs one option at least',
  'radio-twice': ({ id }) => `there is another radio "${id}"`,
  'radio-lock-unknown': ({ id }) => `radio "${id}" is locked to a channel that is none of its options`,
  'radio-unknown': ({ radio }) => `there is no radio "${radio}"`,
  'radio-hears-itself': ({ radio }) => `radio "${radio}" does not hear itself`,
  'link-margin-low': ({
    end,
    margin,
    fade,
  }) => prose`At the ${end} the slowest rate has ${margin} dB to spare, and weather may take ${fade} dB: use a narrower
    channel, or larger antennas.`,
  'link-too-loud': ({
    dbm,
    end,
    most,
  }) => prose`${dbm} dBm arrive at the ${end}, and a receiver is overloaded above ${most} dBm: set less power at the
    other end.`,
  'link-loud-on-bench': ({
    dbm,
  }) => prose`On the bench about ${dbm} dBm will arrive, far too loud: there, use the least power, and let no antenna
    look at the other.`,
  'link-far-end-first': 'The far end is changed first: the near one can still be reached when the link is down.',
  'link-obstacle-beyond': ({
    at,
    length,
  }) => prose`The highest thing stands ${at} m from the access end, and the link is ${length} m long: correct one of the
    two.`,
  'link-not-clear': ({
    clear,
    where,
    from,
    wanted,
    zone,
    access,
    station,
    both,
  }) => prose`The way is not clear: ${clear} m stand free ${where}, ${from} m from the access end, where ${wanted} m are
    needed (${zone}). Raise the access end by ${access} m, or the station end by ${station} m, or both by
    ${both} m.`,
  'link-of-two-models': ({ unit, other, model, otherModel }) =>
    prose`${unit} and ${other} are of two models, ${model} and ${otherModel}: both ends of a link are the same.`,
  'floor-without-name': 'a floor takes a name',
  'floor-too-narrow': 'a floor is 1 m wide at least',
  'floor-too-shallow': 'a floor is 1 m deep at least',
  'link-too-short': 'a link is 1 m long at least',
  'obstacle-not-between': 'the highest thing on the way stands between both ends',
  'points-too-near': 'The two points lie too near to each other: take two that are some metres apart.',
  'points-differ': ({ here, there }) =>
    prose`The two points are ${here} m apart here and ${there} m there: set the scale of one of the drawings first.`,
  'heard-unknown': ({ where, unit }) => `${where}: heard: no unit of the list is called "${unit}".`,
  'unit-unknown': ({ where, unit }) => `${where}: unit: no unit of the list is called "${unit}".`,
  'unit-hears-itself': ({ where }) => `${where}: a unit does not hear itself.`,
  'channel-does-not-exist-at': ({ where, channel, width, band }) =>
    prose`${where}: there is no channel ${channel} of ${width} MHz at ${band} GHz.`,
  'not-a-regulatory-database': 'byte 0: this is not a regulatory database (it does not begin with RGDB)',
  'database-version': ({ found, reads }) =>
    prose`byte 4: version ${found} of the format; this program reads version ${reads}`,
  'database-country-code': ({ at, country }) => `byte ${at}: ${country} is not a country code`,
  'database-country-twice': ({ at, country }) => `byte ${at}: ${country} stands there twice`,
  'database-rules-short': ({ at, of, length }) => `byte ${at}: ${of} have length ${length}, at least 3 is needed`,
  'database-dfs-unknown': ({ at, of }) => `byte ${at}: ${of} name an unknown DFS region`,
  'database-rule-short': ({ at, of, length, least }) =>
    prose`byte ${at}: ${of} has length ${length}, at least ${least} is needed`,
  'database-flags-unknown': ({ at, of, flags }) =>
    prose`byte ${at}: ${of} has flags ${flags} that this program does not know`,
  'database-range-backwards': ({ at, of, end, start }) =>
    prose`byte ${at}: ${of} ends at ${end} kHz, not above its start at ${start} kHz`,
  'database-ends': ({ at, within }) => `byte ${at}: the file ends within ${within}`,
  'country-new': 'is new',
  'country-gone': 'is no longer there',
  'starts-not-allowed': 'the database does not let an access point start to radiate there',
  'only-old-modulations': 'only old modulations (no OFDM) are allowed there',
  'channel-does-not-exist': ({ channel, width, band }) =>
    prose`There is no channel ${channel} of ${width} MHz at ${band} GHz.`,
  'no-rule-in-database': 'The database has no rule for it: whether it is legal there, this file does not say.',
  'line-without-source': 'a line names its source',
  'country-out-of-order': ({ country }) => `${country} stands out of order`,
  'rules-out-of-order': ({ country }) => `${country}: the rules are not in the order of their frequencies`,
  'not-a-wireless-band': ({ range }) => `${range} is no band of wireless networks`,
  'not-a-whole-step': ({ range }) => `${range} does not end at a whole step`,
  'width-of-no-standard': ({ range, width }) => `${range} allows a width of ${width} MHz, which no standard has`,
  'width-above-range': ({ range, width }) => `${range} is narrower than the width of ${width} MHz that it allows`,
  'power-implausible': ({ range, dbm }) => `${range} allows ${dbm} dBm`,
  'listening-implausible': ({ range, seconds }) => `${range} is listened to for ${seconds} s`,
  'country-rule-count': ({ country, count }) => `${country} has ${count} rules`,
  'no-address-left-in-range': ({
    first,
    last,
    unit,
    count,
  }) => prose`The static range ${first} to ${last} has no address left for ${unit}: ${count} units have one, and the
    rest is the DHCP pool, the gateway, reserved or in use. Widen the static range.`,
  'no-address-left': ({
    subnet,
    unit,
    count,
  }) => prose`${subnet} has no address left for ${unit}: ${count} units have one, and the rest is the DHCP pool, the
    gateway, reserved or in use. Make the pool smaller or the subnet larger.`,
  'at-path': ({ path, told }) => `${path || 'the file'}: ${told}`,
  'locked-to-another-country': ({ model, locked, country }) =>
    prose`${model} is locked to ${countryName(locked)}: it cannot be used in ${countryName(country)}.`,
  'width-at-most': ({ width }) => `a channel of ${width} MHz or less`,
  'channel-by-number': ({ channel }) => `channel ${channel}`,
  'no-legal-channel': ({ model, channel, band, country, environment, why }) => {
    const where = environment === 'outdoor' ? `outdoors in ${country}` : `in ${country}`
    return [`${model} finds ${channel} at ${band} GHz neither legal ${where} nor within its own powers.`, ...why].join(
      ' ',
    )
  },
  'locked-address-not-free': ({
    unit,
    address,
    given,
  }) => prose`${unit} is locked to ${address}, which is in use, a server's, reserved, in the DHCP pool or outside the
    subnet: it would get ${given ?? 'none'}. Lock another address.`,
  'no-legal-link-channel': ({
    width,
    country,
    model,
    channel,
  }) => prose`No ${width} MHz channel is legal outdoors in ${country} for
    ${model}${channel === null ? '' : ` on ${channel}`}: use another width.`,
  'hub-of-two-widths': ({ unit, stations, widths }) =>
    prose`${unit} has ${stations} stations and one radio: give its links one width, not ${widths.join(' and ')} MHz.`,
  'hub-of-two-channels': ({ unit, stations, channels }) =>
    prose`${unit} has ${stations} stations and one radio: give its links one channel, not ${channels.join(' and ')}.`,
  'access-end': 'access end',
  'station-end': 'station end',
  'whole-fresnel-zone': 'the whole first Fresnel zone, on a path this long',
  'part-of-fresnel-zone': '60 % of the first Fresnel zone',
  'above-highest-thing': 'above the highest thing',
  'above-ground': 'above the ground',
  'line-number': ({ line }) => `line ${line}`,
  'row-unfit': ({ where, column, told }) => `${where}: ${column}: ${told}.`,
  'in-header': 'the header',
  'in-country-entry': 'a country entry',
  'in-rules-of': ({ country }) => `the rules of ${country}`,
  'in-rule-of': ({ country }) => `a rule of ${country}`,
  'radar-rules-become': ({ was, now }) => `radar rules of ${was ?? 'nobody'} become those of ${now ?? 'nobody'}`,
  'range-new': ({ from, to, now }) => `${from} to ${to} MHz comes in: ${now.join(', ')}`,
  'range-gone': ({ from, to, was }) => `${from} to ${to} MHz goes: it was ${was.join(', ')}`,
  'range-changed': ({ from, to, was, now }) => `${from} to ${to} MHz: ${was.join(', ')} becomes ${now.join(', ')}`,
  'rule-power': ({ dbm }) => `${dbm} dBm`,
  'rule-width': ({ width }) => `${width} MHz wide`,
  'rule-width-with-neighbours': ({ width }) => `${width} MHz wide with its neighbours`,
  'rule-listens': 'listens for radar',
  'rule-listens-for': ({ seconds }) => `for ${seconds} s`,
  'rule-indoors': 'indoors only',
  'rule-no-access-point': 'no access point',
  'rule-no-ofdm': 'no OFDM',
  'channel-without-rule': ({ channel, width, country, from, to }) =>
    prose`Channel ${channel} at ${width} MHz is not legal in ${country}: no rule covers ${from} to ${to} MHz.`,
  'channel-too-wide': ({
    channel,
    width,
    country,
    from,
    to,
    widest,
  }) => prose`Channel ${channel} at ${width} MHz is not legal in ${country}: the rule for ${from} to ${to} MHz lets a
    channel be ${widest} MHz wide at the most.`,
  'channel-forbidden': ({ channel, width, country, from, to, why }) =>
    prose`Channel ${channel} at ${width} MHz is not legal in ${country}: by the rule for ${from} to ${to} MHz, ${why}.`,
  'range-mhz': ({ from, to }) => `${from} to ${to} MHz`,
  'marked-not-to-start': ({
    ranges,
  }) => prose`The database marks it as not for what starts by itself (${ranges.join(', ')}), and no line here says
    otherwise.`,
  'of-country': ({ country, fault }) => `${country}: ${fault}`,
  'network-surplus': ({ network }) => `Network "${network}" is on the unit and not in the brief.`,
  'network-missing': ({ network }) => `Network "${network}" is missing.`,
  'radio-missing': ({ band }) => `The unit shows no ${band} GHz radio.`,
  'setting-again': ({ setting, scope, of, whole }) =>
    prose`${subject(setting, scope, of)} ${isOrAre(setting)} to be set again, since ${settingWithin(whole)} changes.`,
  'setting-not-known-to-unit': ({ setting, scope, of }) =>
    prose`${subject(setting, scope, of)} ${isOrAre(setting)} not known to the unit.`,
  'setting-not-shown': ({ setting, scope, of }) =>
    prose`${subject(setting, scope, of)} ${isOrAre(setting)} not shown by the unit, and not what was written last.`,
  'secret-differs': ({ setting, scope, of }) => `${subject(setting, scope, of)} differs.`,
  'setting-differs': ({ setting, scope, of, found, desired }) =>
    prose`${subject(setting, scope, of)} ${isOrAre(setting)} ${found}, to be ${desired}.`,
  'hands-set': ({ setting, value }) => `Set ${settingName(setting)} to ${value}.`,
}
