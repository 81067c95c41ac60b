import type { briefMessages } from '../../../core/message/brief'
import type { Sentences } from '../../../core/message/message'
import { prose } from '../../prose'
import { countryName, listenWords, securityWords } from '../parts'

export const briefSentences: Sentences<typeof briefMessages> = {
  'address-not-ipv4': ({ text }) => `„${text}“ ist keine IPv4-Adresse wie 10.44.8.1`,
  'subnet-not-ipv4': ({ text }) => `„${text}“ ist kein Subnetz wie 10.44.8.0/24`,
  'mac-not-six-pairs': ({ text }) =>
    prose`„${text}“ ist keine MAC-Adresse: Sie hat sechs Paare aus 0-9 und a-f, wie 02:4f:52:10:6a:2c`,
  'country-two-capitals': 'ein Land sind zwei Großbuchstaben, wie NZ',
  'site-without-name': 'der Standort braucht einen Namen',
  'time-zone-unknown': 'das ist keine Zeitzone der IANA-Liste, wie Pacific/Auckland',
  'no-time-server': 'Einheiten brauchen einen Zeitserver: Eine falsche Uhr stört Beitritte und Zertifikate',
  'radar-without-region': ({
    country,
  }) => prose`${countryName(country)} gehört in der Datenbank zu keiner Radarregion und hat doch Kanäle, auf denen nach
    Radar gehört werden muss. Das Land später zu ändern setzt bei vielen Geräten die Kanäle zurück.`,
  'radar-none': ({
    country,
  }) => prose`${countryName(country)} hat in der Datenbank keine Radarkanäle. Das Land später zu ändern setzt bei vielen
    Geräten die Kanäle zurück.`,
  'radar-rules': ({
    country,
    dfs,
  }) => prose`${countryName(country)} folgt den Radarregeln von ${dfs}. Das Land später zu ändern setzt bei vielen
    Geräten die Kanäle zurück; darum wird vorher nichts am Funk geschrieben.`,
  'not-a-subnet': ({ subnet }) => `${subnet} ist kein Subnetz.`,
  'free-addresses': ({ count, subnet }) => `${count} statische Adressen sind in ${subnet} für Einheiten frei.`,
  'no-network-yet': 'Noch kein Funknetz: Die Einheiten wären stumm.',
  'the-management-network': 'dem Management-Netz',
  'whatever-is-untagged': 'dem Netz ohne Tag',
  'vlan-by-number': ({ vlan }) => `VLAN ${vlan}`,
  'network-in-short': ({ ssid, security, bands, where }) =>
    prose`„${ssid}“: ${securityWords(security)}, ${bands.join(' und ')} GHz, Clients landen in ${where}.`,
  'many-beacons': ({
    count,
  }) => prose`${count} Netze senden auf jedem Funkmodul je zehn Beacons in der Sekunde: Sendezeit geht verloren, bevor
    der erste Client kommt.`,
  'may-reach': ({ from, to }) => `${from} darf ${to} erreichen.`,
  'kept-apart': ({ subnets }) => `${subnets.join(', ')}: ins Internet, und zu niemandem am Standort.`,
  'pool-hands-out': ({ subnet, handed, left }) =>
    prose`${subnet} vergibt ${handed} Adressen und lässt ${left} für statische.`,
  'one-password': 'Ein Admin-Passwort für alle Einheiten: eines zum Aufschreiben, und eines zum Verlieren.',
  'password-each': 'Jede Einheit hat ein eigenes Admin-Passwort: Wird eines bekannt, öffnet es eine Einheit.',
  'keeps-mail': 'Meldungen per E-Mail',
  'keeps-restart': 'ein wöchentlicher Neustart',
  'keeps-firmware': ({ firmware }) => `Firmware ${firmware} oder neuer`,
  'keeps-firmware-of': ({ version, model }) => `Firmware ${version} für ${model}`,
  'telnet-stays-off': 'Telnet bleibt aus: Es sendet das Admin-Passwort für alle lesbar.',
  'kept-where-taken': ({ kept }) => `Gesetzt, wo ein Modell es kann, und gesagt, wo nicht: ${kept.join(', ')}.`,
  'no-band': 'mindestens ein Band wählen',
  'user-name-unfit': prose`ein Benutzer heißt in Kleinbuchstaben, Ziffern und Strichen, mit einem Buchstaben am
    Anfang, wie night-watch`,
  'admin-name-unfit': 'ein Admin heißt in Kleinbuchstaben, Ziffern und Strichen, wie keeper',
  'too-many-users': 'höchstens acht Benutzer neben dem Admin',
  'user-twice': 'zwei Benutzer haben einen Namen',
  'server-unfit': 'ein Server ist eine Adresse oder ein Name, wie 10.44.8.5 oder mail.example',
  'version-unfit': 'eine Version besteht aus Buchstaben, Ziffern, Punkten und Strichen, wie 7.3.0',
  'digest-unfit': 'eine Prüfsumme hat 64 hexadezimale Ziffern',
  'snmp-user-unfit': 'ein SNMP-Benutzer hat 1 bis 32 Buchstaben, Ziffern, Punkte oder Striche',
  'alert-address-unfit': 'eine Meldung geht an eine Adresse wie site@client.example',
  'too-many-images': 'ein Auftrag hat höchstens 16 Images',
  'image-twice': 'ein Modell hat ein Image',
  'ssid-missing': 'ein Netz braucht einen Namen',
  'ssid-too-long': ({ ssid, bytes, longest }) =>
    prose`„${ssid}“ ist ${bytes} Byte lang; ein Netzname fasst höchstens ${longest}`,
  'ssid-with-space': ({ ssid }) => `„${ssid}“ beginnt oder endet mit einem Leerzeichen, das niemand sieht`,
  'ssid-half-character': ({ ssid }) => `„${ssid}“ enthält ein halbes Zeichen: den Namen neu eingeben`,
  'vlan-unfit': 'ein VLAN ist eine ganze Zahl von 1 bis 4094 (IEEE 802.1Q)',
  'subnet-without-name': 'ein Subnetz braucht einen Namen',
  'no-day': 'mindestens einen Tag wählen',
  'rate-unfit': 'eine Rate ist eine ganze Zahl von 64 bis 10000000 kbit/s',
  'signal-unfit': 'ein Signal ist eine ganze Zahl von -95 bis -40 dBm',
  'most-clients-unfit': 'die meisten Clients sind eine ganze Zahl von 1 bis 2000',
  'cipher-not-aes': prose`das Verfahren ist AES-CCMP: TKIP ist gebrochen und hält jeden Client bei 54 Mbit/s (IEEE
    802.11 verbietet es mit hohen Durchsatzraten)`,
  'whole-number-unfit': ({ unit, least, most }) => `eine ganze Zahl von ${least} bis ${most} ${unit}`,
  'time-of-day-unfit': 'eine Uhrzeit schreibt sich 07:30, von 00:00 bis 23:59',
  'text-too-large': ({ size, most }) => `es hat ${size} kB; erlaubt sind ${most}`,
  'text-too-many-lines': ({ count, most }) => `es hat ${count} Zeilen; erlaubt sind ${most}`,
  'text-indent-too-deep': ({ indent, most }) =>
    prose`es beginnt ${indent} Leerzeichen weit innen; erlaubt sind ${most}`,
  'text-brackets-too-deep': ({ depth }) =>
    prose`Klammern sind höchstens ${depth} tief, und so oft geschlossen wie geöffnet`,
  'text-lists-too-deep': ({ depth }) => `Listen sind höchstens ${depth} tief`,
  'text-too-many-marks': ({ most }) => `Tags, Anker und Verweise: erlaubt sind ${most}`,
  'text-too-many-entries': ({ most }) => `es hat mehr als ${most} Einträge`,
  'text-levels-too-deep': ({ most }) => `es ist mehr als ${most} Ebenen tief`,
  'text-not-json': ({ reason }) => `es ist kein JSON (${reason})`,
  'unknown-reason': 'unbekannter Grund',
  'not-one-line': 'das steht auf einer Zeile, ohne Tabulatoren und andere Steuerzeichen',
  'pattern-too-long': ({ most }) => `ein Ausdruck hat höchstens ${most} Zeichen`,
  'pattern-unfit': ({ text, reason }) => `„${text}“ ist kein regulärer Ausdruck: ${reason}`,
  'switch-port-unfit': 'ein Switch-Port ist eine ganze Zahl von 1 bis 512',
  'unit-without-name': 'eine Einheit braucht einen Namen',
  'login-name-too-long': 'ein Name hat höchstens 64 Zeichen',
  'login-password-missing': 'ein Passwort hat mindestens ein Zeichen',
  'login-password-too-long': 'ein Passwort hat höchstens 200 Zeichen',
  'passphrase-is-a-key': prose`Das sind 64 hexadezimale Ziffern, ein Schlüssel für WPA2: WPA3 nimmt eine Passphrase
    von 8 bis 63 Zeichen.`,
  'passphrase-not-ascii': prose`Die Passphrase enthält ein Zeichen außerhalb von ASCII: Manche Clients könnten es
    nicht eingeben.`,
  'passphrase-too-short': ({ count }) => `Die Passphrase hat ${count} Zeichen; WPA2 braucht mindestens 8.`,
  'passphrase-too-long': ({ count }) => `Die Passphrase hat ${count} Zeichen; WPA2 nimmt höchstens 63.`,
  'password-length-unfit': ({ model, shortest, longest }) =>
    prose`${model} nimmt ein Admin-Passwort von ${shortest} bis ${longest} Zeichen.`,
  'password-characters-unfit': ({ model, allowed }) => `${model} nimmt nur ein Admin-Passwort mit ${allowed}.`,
  'keeps-snmp': 'SNMPv3',
  'keeps-syslog': 'Syslog',
  'band-without-channel': ({ country, band, width }) =>
    prose`${countryName(country)}, ${band} GHz: Kein Kanal von ${width} MHz ist erlaubt.`,
  'band-channels': ({ country, band, width, count, listening }) =>
    prose`${countryName(country)}, ${band} GHz: ${count} Kanäle von ${width} MHz, ${listening}.`,
  'none-listens': 'keiner muss nach Radar hören',
  'some-listen': ({ count }) => `${count} müssen erst nach Radar hören`,
  'some-listen-long': ({ count, long, seconds }) =>
    prose`${count} müssen erst nach Radar hören, ${long} davon ${listenWords(seconds)} lang`,
  'short-range-used': ({
    count,
  }) => prose`${count} davon liegen über 5725 MHz, wo höchstens 25 mW erlaubt sind (EN 300 440): weit weniger als sonst,
    und viele Clients suchen dort nicht.`,
  'short-range-left-out': ({
    count,
  }) => prose`${count} davon liegen über 5725 MHz, wo höchstens 25 mW erlaubt sind (EN 300 440): weit weniger als sonst.
    Sie bleiben weg.`,
  'power-about': ({ dbm }) =>
    prose`Die Einheiten senden mit etwa ${dbm} dBm, so laut, wie das schwächste Gerät antwortet; nach oben ist Platz.`,
  'power-less-at-24': ({ dbm }) => `Auf 2,4 GHz ${dbm} dBm, damit Clients zu 5 GHz neigen.`,
}
