import type { Sentences } from '../../../core/message/message'
import type { planMessages } from '../../../core/message/plan'
import { prose } from '../../prose'
import { countryName, nameRule, sameWhat, securityName, settingName, subject, valueWords } from '../parts'

export const planSentences: Sentences<typeof planMessages> = {
  'mac-was': ({ was, now }) => `Es war ${was} und ist jetzt ${now}.`,
  'admin-password-another': 'Das Admin-Passwort ist ein anderes.',
  'cannot-be-mustered': ({ model, why }) => `${model} lässt sich nicht aufrufen: ${why}.`,
  'no-admin-password': 'Für diese Einheit gibt es noch kein Admin-Passwort: Lassen Sie im Auftrag eines erzeugen.',
  'locked-to-country': ({ model, country, asked }) =>
    prose`${model} ist auf das Land ${country} festgelegt, und der Auftrag sagt ${asked}.`,
  'name-unfit': ({ model, name, allowed }) => `${model} nimmt den Namen „${name}“ nicht: ${nameRule(allowed)}.`,
  'address-outside': ({ address, subnet }) =>
    prose`Die geplante Adresse ${address} gehört nicht zu ${subnet}: Planen Sie neu.`,
  'gateway-not-in-subnet': ({
    gateway,
    subnet,
  }) => prose`Das Gateway ${gateway} liegt nicht in ${subnet}: Die Einheit könnte es nicht erreichen. Berichtigen Sie
    den Auftrag.`,
  'address-is-gateway': ({ address }) => `Die geplante Adresse ${address} ist die des Gateways: Planen Sie neu.`,
  'too-many-networks-for-model': ({ count, model, most }) =>
    prose`Der Auftrag hat ${count} Netze; ${model} trägt ${most}.`,
  'too-many-networks-on-band': ({ count, band, model, most }) =>
    prose`${count} Netze liegen auf ${band} GHz; dieses Funkmodul von ${model} trägt ${most}.`,
  'open-not-confirmed': ({
    ssid,
  }) => prose`„${ssid}“ hat keine Sicherheit: Kein offenes Netz geht auf Sendung, bevor sein Name im Auftrag ein zweites
    Mal eingegeben ist.`,
  'radius-server-missing': ({ ssid }) => `„${ssid}“ hat keinen RADIUS-Server: Niemand könnte sich anmelden.`,
  'radius-secret-missing': ({ ssid }) => `„${ssid}“ hat noch kein RADIUS-Geheimnis.`,
  'passphrase-missing': 'Es gibt noch keine Passphrase.',
  'of-network': ({ ssid, told }) => `„${ssid}“: ${told}`,
  'channel-indoors-only': ({ channel, band, country }) =>
    prose`Kanal ${channel} auf ${band} GHz ist in ${country} nur für Innenräume.`,
  'power-above-limit': ({ dbm, gain, limit, channel }) =>
    prose`${dbm} dBm mit einem Gewinn von ${gain} dBi liegen über der Grenze von ${limit} dBm auf Kanal ${channel}.`,
  'security-unknown-to-model': ({ model, ssid, security }) =>
    prose`${model} kann „${ssid}“ nicht tragen: Es kennt ${securityName(security)} nicht.`,
  'mode-unknown-to-model': ({ model, mode }) => `${model} kennt dort 802.11${mode} nicht.`,
  'zone-without-rule': ({ model, zone }) => `${model} nimmt eine POSIX-Regel, und ${zone} hält sich an keine.`,
  'user-is-admin': ({ user, model }) => `${user} ist der Admin von jedem ${model}.`,
  'carries-no-networks': 'Sie trägt keine Netze.',
  'no-radio-for-network': 'Sie hat auf den Bändern dieses Netzes kein Funkmodul in Gebrauch.',
  'no-radio-of-band': ({ band }) => `Sie hat kein Funkmodul für ${band} GHz.`,
  'controller-has-it': 'Ihr Controller hat es und ist darauf eingestellt.',
  'model-does-not-ask': 'Dieses Modell fragt nicht danach.',
  'brief-asks-for-none': 'Der Auftrag verlangt keine.',
  'model-has-none': 'Dieses Modell hat es nicht, und der Auftrag verlangt keines.',
  'hands-as-in-vault': ({ setting }) => `${settingName(setting)} wie im Tresor setzen.`,
  'not-set-by-muster': ({ model, why }) => `${model} wird nicht von Air Muster eingerichtet: ${why}.`,
  'not-taken-by-model': ({ model }) => `${model} nimmt es nicht.`,
  'goes-with': ({ setting, model }) =>
    prose`Es gehört zu ${settingName(setting)}, was ${model} nicht wie verlangt nimmt.`,
  'takes-only': ({ model, values }) => `${model} nimmt nur ${valueWords(values)}.`,
  'has-value': ({ value }) => `Sie hat ${valueWords(value)}.`,
  'hands-bring': ({ setting, value }) => `${settingName(setting)} auf ${valueWords(value)} bringen.`,
  'dhcp-reservations': prose`Management: für jede Einheit eine Adresse, die nach ihrer MAC reserviert ist; Plan,
    Adressen hat die Liste für den Server.`,
  'dhcp-option-3': ({ gateway }) => `Option 3, Router, im Management: ${gateway}.`,
  'dhcp-option-42': ({ servers }) => `Option 42, Zeitserver, im Management: ${servers.join(', ')}.`,
  'dhcp-time-by-name': ({ names }) =>
    prose`Die Einheiten fragen ${names.join(', ')} mit Namen nach der Zeit: Keine Option sagt das.`,
  'dhcp-option-138': ({ addresses }) =>
    prose`Option 138, Controller (RFC 5417), im Management: ${addresses.join(', ')}.`,
  'dhcp-option-43': ({ vendorClass, hex }) =>
    prose`Option 43, im Management, für Clients, deren Option 60 „${vendorClass}“ ist: ${hex}.`,
  'job-name-unfit': 'ein Auftrag wird unter Kleinbuchstaben, Ziffern und Strichen abgelegt, höchstens 60',
  'job-without-name': 'ein Auftrag braucht einen Namen',
  'not-base64': 'das ist kein Base64',
  'not-a-job-file': ({ format }) => `das ist keine Auftragsdatei: Ihr Format ist nicht „${format}“`,
  'job-file-newer': 'diese Auftragsdatei hat eine andere Version als 1: Nehmen Sie ein neueres Air Muster',
  'cards-too-large': ({ most }) => `Gerätekarten haben zusammen höchstens ${most} kB`,
  'unit-same': ({ name, what, other, value }) => `${name} hat ebenfalls ${sameWhat(what)} ${value} wie ${other}`,
  'floor-drawn-twice': ({ floor }) => `der Grundriss „${floor}“ hat zwei Zeichnungen`,
  'floor-unknown': ({ floor }) => `der Auftrag hat keinen Grundriss „${floor}“`,
  'drawing-not-what-it-says': ({ type }) => `das gibt sich als ${type} aus und enthält etwas anderes`,
  'option-ends-above': 'eine Option endet über ihrem Anfang: highMhz ist größer als lowMhz',
  'radio-without-option': 'ein Funkmodul braucht mindestens eine Option',
  'radio-twice': ({ id }) => `es gibt ein weiteres Funkmodul „${id}“`,
  'radio-lock-unknown': ({ id }) =>
    prose`Funkmodul „${id}“ ist auf einen Kanal festgelegt, der keine seiner Optionen ist`,
  'radio-unknown': ({ radio }) => `es gibt kein Funkmodul „${radio}“`,
  'radio-hears-itself': ({ radio }) => `Funkmodul „${radio}“ hört sich nicht selbst`,
  'link-margin-low': ({
    end,
    margin,
    fade,
  }) => prose`Am ${end} hat die langsamste Rate ${margin} dB Reserve, und Wetter kann ${fade} dB nehmen: Nehmen Sie
    einen schmaleren Kanal oder größere Antennen.`,
  'link-too-loud': ({
    dbm,
    end,
    most,
  }) => prose`${dbm} dBm kommen am ${end} an, und ein Empfänger ist über ${most} dBm übersteuert: Stellen Sie am anderen
    Ende weniger Leistung ein.`,
  'link-loud-on-bench': ({
    dbm,
  }) => prose`Auf der Werkbank kommen etwa ${dbm} dBm an, viel zu laut: Nehmen Sie dort die kleinste Leistung, und
    lassen Sie keine Antenne auf die andere schauen.`,
  'link-far-end-first': prose`Das ferne Ende wird zuerst geändert: Das nahe ist auch ohne die Strecke noch zu
    erreichen.`,
  'link-obstacle-beyond': ({
    at,
    length,
  }) => prose`Das Höchste steht ${at} m vom Zugangsende, und die Strecke ist ${length} m lang: Berichtigen Sie eines von
    beiden.`,
  'link-not-clear': ({
    clear,
    where,
    from,
    wanted,
    zone,
    access,
    station,
    both,
  }) => prose`Der Weg ist nicht frei: ${clear} m stehen frei ${where}, ${from} m vom Zugangsende, nötig sind ${wanted} m
    (${zone}). Heben Sie das Zugangsende um ${access} m, das Stationsende um ${station} m oder beide um ${both}
    m.`,
  'link-of-two-models': ({ unit, other, model, otherModel }) =>
    prose`${unit} und ${other} sind zwei Modelle, ${model} und ${otherModel}: Beide Enden einer Strecke sind gleich.`,
  'floor-without-name': 'ein Grundriss braucht einen Namen',
  'floor-too-narrow': 'ein Grundriss ist mindestens 1 m breit',
  'floor-too-shallow': 'ein Grundriss ist mindestens 1 m tief',
  'link-too-short': 'eine Strecke ist mindestens 1 m lang',
  'obstacle-not-between': 'das Höchste auf dem Weg steht zwischen beiden Enden',
  'points-too-near': prose`Die beiden Punkte liegen zu nah beieinander: Nehmen Sie zwei, die einige Meter auseinander
    liegen.`,
  'points-differ': ({
    here,
    there,
  }) => prose`Die beiden Punkte liegen hier ${here} m und dort ${there} m auseinander: Setzen Sie erst den Maßstab einer
    der Zeichnungen.`,
  'heard-unknown': ({ where, unit }) => `${where}: heard: Keine Einheit der Liste heißt „${unit}“.`,
  'unit-unknown': ({ where, unit }) => `${where}: unit: Keine Einheit der Liste heißt „${unit}“.`,
  'unit-hears-itself': ({ where }) => `${where}: Eine Einheit hört sich nicht selbst.`,
  'channel-does-not-exist-at': ({ where, channel, width, band }) =>
    prose`${where}: Einen Kanal ${channel} von ${width} MHz auf ${band} GHz gibt es nicht.`,
  'not-a-regulatory-database': 'Byte 0: Das ist keine Datenbank von Funkregeln (sie beginnt nicht mit RGDB)',
  'database-version': ({ found, reads }) =>
    prose`Byte 4: Version ${found} des Formats; dieses Programm liest Version ${reads}`,
  'database-country-code': ({ at, country }) => `Byte ${at}: ${country} ist kein Ländercode`,
  'database-country-twice': ({ at, country }) => `Byte ${at}: ${country} steht dort zweimal`,
  'database-rules-short': ({ at, of, length }) => `Byte ${at}: ${of} haben die Länge ${length}, nötig sind 3`,
  'database-dfs-unknown': ({ at, of }) => `Byte ${at}: ${of} nennen eine unbekannte DFS-Region`,
  'database-rule-short': ({ at, of, length, least }) =>
    prose`Byte ${at}: ${of} hat die Länge ${length}, nötig sind ${least}`,
  'database-flags-unknown': ({ at, of, flags }) =>
    prose`Byte ${at}: ${of} hat Flags ${flags}, die dieses Programm nicht kennt`,
  'database-range-backwards': ({ at, of, end, start }) =>
    prose`Byte ${at}: ${of} endet bei ${end} kHz, nicht über dem Anfang bei ${start} kHz`,
  'database-ends': ({ at, within }) => `Byte ${at}: Die Datei endet innerhalb von: ${within}`,
  'country-new': 'ist neu',
  'country-gone': 'gibt es nicht mehr',
  'starts-not-allowed': 'die Datenbank lässt dort keinen Access Point zu senden beginnen',
  'only-old-modulations': 'nur alte Modulationen (kein OFDM) sind dort erlaubt',
  'channel-does-not-exist': ({ channel, width, band }) =>
    prose`Einen Kanal ${channel} von ${width} MHz auf ${band} GHz gibt es nicht.`,
  'no-rule-in-database': 'Die Datenbank hat dafür keine Regel: Ob es dort erlaubt ist, sagt diese Datei nicht.',
  'line-without-source': 'eine Zeile nennt ihre Quelle',
  'country-out-of-order': ({ country }) => `${country} steht nicht in der Reihenfolge`,
  'rules-out-of-order': ({ country }) => `${country}: Die Regeln stehen nicht in der Reihenfolge ihrer Frequenzen`,
  'not-a-wireless-band': ({ range }) => `${range} ist kein Band für Funknetze`,
  'not-a-whole-step': ({ range }) => `${range} endet nicht auf einem ganzen Schritt`,
  'width-of-no-standard': ({ range, width }) =>
    prose`${range} erlaubt eine Breite von ${width} MHz, die kein Standard hat`,
  'width-above-range': ({ range, width }) => `${range} ist schmaler als die erlaubte Breite von ${width} MHz`,
  'power-implausible': ({ range, dbm }) => `${range} erlaubt ${dbm} dBm`,
  'listening-implausible': ({ range, seconds }) => `auf ${range} wird ${seconds} s gehört`,
  'country-rule-count': ({ country, count }) => `${country} hat ${count} Regeln`,
  'no-address-left-in-range': ({
    first,
    last,
    unit,
    count,
  }) => prose`Der statische Bereich ${first} bis ${last} hat keine Adresse mehr für ${unit}: ${count} Einheiten haben
    eine, der Rest ist DHCP-Bereich, Gateway, reserviert oder in Gebrauch. Vergrößern Sie den statischen
    Bereich.`,
  'no-address-left': ({
    subnet,
    unit,
    count,
  }) => prose`${subnet} hat keine Adresse mehr für ${unit}: ${count} Einheiten haben eine, der Rest ist DHCP-Bereich,
    Gateway, reserviert oder in Gebrauch. Verkleinern Sie den DHCP-Bereich oder vergrößern Sie das Subnetz.`,
  'at-path': ({ path, told }) => `${path || 'die Datei'}: ${told}`,
  'locked-to-another-country': ({ model, locked, country }) =>
    prose`${model} ist auf ${countryName(locked)} festgelegt: In ${countryName(country)} ist es nicht zu gebrauchen.`,
  'width-at-most': ({ width }) => `einen Kanal von höchstens ${width} MHz`,
  'channel-by-number': ({ channel }) => `Kanal ${channel}`,
  'no-legal-channel': ({ model, channel, band, country, environment, why }) =>
    [
      prose`${model} findet ${channel} auf ${band} GHz in ${country}${environment === 'outdoor' ? ' im Freien' : ''}
        weder erlaubt noch innerhalb der eigenen Leistungen.`,
      ...why,
    ].join(' '),
  'locked-address-not-free': ({
    unit,
    address,
    given,
  }) => prose`${unit} ist auf ${address} festgelegt, die in Gebrauch, eines Servers, reserviert, im DHCP-Bereich oder
    außerhalb des Subnetzes ist: Es bekäme ${given ?? 'keine'}. Legen Sie eine andere Adresse fest.`,
  'no-legal-link-channel': ({
    width,
    country,
    model,
    channel,
  }) => prose`Kein Kanal von ${width} MHz ist in ${country} im Freien für
    ${model}${channel === null ? '' : ` auf ${channel}`} erlaubt: Nehmen Sie eine andere Breite.`,
  'hub-of-two-widths': ({
    unit,
    stations,
    widths,
  }) => prose`${unit} hat ${stations} Stationen und ein Funkmodul: Geben Sie seinen Strecken eine Breite, nicht
    ${widths.join(' und ')} MHz.`,
  'hub-of-two-channels': ({
    unit,
    stations,
    channels,
  }) => prose`${unit} hat ${stations} Stationen und ein Funkmodul: Geben Sie seinen Strecken einen Kanal, nicht
    ${channels.join(' und ')}.`,
  'access-end': 'Zugangsende',
  'station-end': 'Stationsende',
  'whole-fresnel-zone': 'die ganze erste Fresnelzone, auf einem so langen Weg',
  'part-of-fresnel-zone': '60 % der ersten Fresnelzone',
  'above-highest-thing': 'über dem Höchsten',
  'above-ground': 'über dem Boden',
  'line-number': ({ line }) => `Zeile ${line}`,
  'row-unfit': ({ where, column, told }) => `${where}: ${column}: ${told}.`,
  'in-header': 'Kopf',
  'in-country-entry': 'Eintrag eines Landes',
  'in-rules-of': ({ country }) => `die Regeln von ${country}`,
  'in-rule-of': ({ country }) => `eine Regel von ${country}`,
  'radar-rules-become': ({ was, now }) =>
    prose`aus den Radarregeln von ${was ?? 'niemandem'} werden die von ${now ?? 'niemandem'}`,
  'range-new': ({ from, to, now }) => `${from} bis ${to} MHz kommt hinzu: ${now.join(', ')}`,
  'range-gone': ({ from, to, was }) => `${from} bis ${to} MHz entfällt: Es war ${was.join(', ')}`,
  'range-changed': ({ from, to, was, now }) =>
    prose`${from} bis ${to} MHz: Aus ${was.join(', ')} wird ${now.join(', ')}`,
  'rule-power': ({ dbm }) => `${dbm} dBm`,
  'rule-width': ({ width }) => `${width} MHz breit`,
  'rule-width-with-neighbours': ({ width }) => `${width} MHz breit, mit den Nachbarn`,
  'rule-listens': 'hört nach Radar',
  'rule-listens-for': ({ seconds }) => `${seconds} s lang`,
  'rule-indoors': 'nur in Innenräumen',
  'rule-no-access-point': 'kein Access Point',
  'rule-no-ofdm': 'kein OFDM',
  'channel-without-rule': ({ channel, width, country, from, to }) =>
    prose`Kanal ${channel} mit ${width} MHz ist in ${country} nicht erlaubt: Keine Regel deckt ${from} bis ${to} MHz.`,
  'channel-too-wide': ({
    channel,
    width,
    country,
    from,
    to,
    widest,
  }) => prose`Kanal ${channel} mit ${width} MHz ist in ${country} nicht erlaubt: Die Regel für ${from} bis ${to} MHz
    lässt höchstens ${widest} MHz Breite zu.`,
  'channel-forbidden': ({
    channel,
    width,
    country,
    from,
    to,
    why,
  }) => prose`Kanal ${channel} mit ${width} MHz ist in ${country} nicht erlaubt: Nach der Regel für ${from} bis ${to}
    MHz gilt: ${why}.`,
  'range-mhz': ({ from, to }) => `${from} bis ${to} MHz`,
  'marked-not-to-start': ({
    ranges,
  }) => prose`Die Datenbank lässt dort nichts von selbst senden (${ranges.join(', ')}), und keine Zeile hier sagt etwas
    anderes.`,
  'of-country': ({ country, fault }) => `${country}: ${fault}`,
  'network-surplus': ({ network }) => `Netz „${network}“ ist auf der Einheit und nicht im Auftrag.`,
  'network-missing': ({ network }) => `Netz „${network}“ fehlt.`,
  'radio-missing': ({ band }) => `Die Einheit zeigt kein Funkmodul für ${band} GHz.`,
  'setting-again': ({ setting, scope, of, whole }) =>
    prose`${subject(setting, scope, of)}: wird neu gesetzt, da sich ${settingName(whole)} ändert.`,
  'setting-not-known-to-unit': ({ setting, scope, of }) =>
    prose`${subject(setting, scope, of)}: der Einheit nicht bekannt.`,
  'setting-not-shown': ({
    setting,
    scope,
    of,
  }) => prose`${subject(setting, scope, of)}: wird von der Einheit nicht gezeigt und ist nicht, was zuletzt geschrieben
    wurde.`,
  'secret-differs': ({ setting, scope, of }) => `${subject(setting, scope, of)}: weicht ab.`,
  'setting-differs': ({ setting, scope, of, found, desired }) =>
    prose`${subject(setting, scope, of)}: ist ${valueWords(found)}, soll ${valueWords(desired)} sein.`,
  'hands-set': ({ setting, value }) => `${settingName(setting)} auf ${valueWords(value)} setzen.`,
}
