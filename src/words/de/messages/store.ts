import type { Sentences } from '../../../core/message/message'
import type { storeMessages } from '../../../core/message/store'
import { prose } from '../../prose'
import { copyName } from '../parts'

export const storeSentences: Sentences<typeof storeMessages> = {
  'job-gone': ({ job }) => `den Auftrag ${job} gibt es nicht mehr`,
  'files-full': prose`es wurden Dateien gebracht, die kein Grundriss und kein Auftrag nutzt: Sie verschwinden eine
    Stunde später; warten Sie darauf`,
  'file-too-large': ({ most }) => `sie hat mehr als ${most} MB`,
  'version-stale': ({ what }) =>
    prose`Jemand anders hat inzwischen ${what} geändert. Laden Sie neu, und ändern Sie noch einmal.`,
  'what-brief': 'den Auftrag',
  'column-not-json': 'es ist kein JSON',
  'what-kit-card': ({ model }) => `die Gerätekarte von ${model}`,
  'settings-missing': 'AIR_MUSTER_DB und AIR_MUSTER_VAULT_FILE sind nicht gesetzt: Starten Sie mit npm run demo',
  'muster-open': prose`Ein Durchlauf dieses Auftrags läuft, für andere Einheiten. Warten Sie sein Ende ab oder halten
    Sie es an, und rufen Sie dann diese auf.`,
  'rules-not-a-database': ({ name, told }) => `${name} ist keine Datenbank von Funkregeln: ${told}.`,
  'rules-without-country': ({ name, country, why }) => `${name} hat keine Regeln für ${country}, und ${why}.`,
  'every-file-has-them': 'jede solche Datei hat sie',
  'a-job-is-there': 'dort gibt es einen Auftrag',
  'rules-cut-short': ({ name, lost }) =>
    prose`${name} fehlen ${lost} Länder, die die jetzige Datei hat: Sie ist abgeschnitten oder etwas anderes.`,
  'rules-signature-unfit': ({ name, why }) => `Die Signatur passt nicht zu ${name}: ${why}.`,
  'rules-without-signature': 'Sie kommt ohne Signatur: Nichts sagt, von wem sie ist.',
  'rules-offer-outdated': prose`Inzwischen wurde eine andere Datei gebracht. Sehen Sie die neueste an, und stimmen Sie
    dann ihr zu.`,
  'signature-unreadable': 'es ist keine lesbare Signatur',
  'signature-without-certificate': 'sie bringt das Zertifikat des Unterzeichners nicht mit',
  'signature-of-another-file': prose`die Datei wurde nach der Signatur geändert, oder die Signatur gilt einer anderen
    Datei`,
  'signed-by-known': ({ signer }) => `Signiert von ${signer}, seitdem unverändert.`,
  'signed-by-unknown': ({ certificate }) =>
    prose`Signiert mit einem Schlüssel, der hier nicht bekannt ist (Zertifikat ${certificate}…), seitdem unverändert.`,
  'what-floors': 'die Grundrisse',
  'vault-key-length': ({ length, needed }) => `der Schlüssel des Tresors hat ${length} Byte, nötig sind ${needed}`,
  'not-sealed-by-vault': ({ label }) => `${label} ist nicht von diesem Tresor versiegelt`,
  'sealed-with-another-key': ({ label }) => `${label} ist mit einem anderen Schlüssel versiegelt`,
  'vault-key-readable': ({ file }) =>
    prose`andere können den Schlüssel des Tresors lesen: Führen Sie chmod 600 ${file} aus`,
  'backup-newer': 'sie stammt von einer neueren Version: Bringen Sie erst diese auf den Stand',
  'backup-column-unknown': ({ table, column }) => `diese Version hat keine Spalte ${table}.${column}`,
  'backup-row-astray': 'sie hat eine Zeile, die zu keiner Tabelle gehört',
  'backup-row-width': ({ table, count }) => `eine Zeile von ${table} hat ${count} Werte`,
  'release-differs': 'Diese Seite und das, was ihr antwortet, sind verschiedene Versionen: Laden Sie sie neu.',
  'rules-file-missing': 'Wählen Sie eine Datei regulatory.db.',
  'rules-file-too-large': ({ name }) => `${name} hat mehr als 1 MB: Das ist keine Datenbank von Funkregeln.`,
  'job-no-longer-there': 'Diesen Auftrag gibt es nicht mehr.',
  'database-away-unchanged': prose`Die Datenbank ist weg. Nichts wurde geändert; sie wird neu gestartet, dann
    versuchen Sie es noch einmal.`,
  'database-full-unchanged': prose`Der Datenträger der Datenbank ist voll. Nichts wurde geändert; schaffen Sie Platz,
    dann versuchen Sie es noch einmal.`,
  'database-refuses-unchanged': 'Die Datenbank nimmt das nicht. Nichts wurde geändert.',
  'unit-no-longer-listed': 'Diese Einheit steht nicht mehr auf der Liste.',
  'copy-missing': ({ name, copy }) => `Von ${name} gibt es noch keine Kopie (${copyName(copy)}).`,
  'picture-missing': ({ name }) => `Von ${name} gibt es kein Bild einer Seite.`,
  'delete-needs-name': ({ name }) => `Geben Sie zum Löschen den Namen genau so ein: ${name}`,
  'delete-during-muster': prose`Ein Durchlauf dieses Auftrags läuft. Halten Sie es an oder warten Sie sein Ende ab,
    und löschen Sie dann.`,
  'floor-not-kept-yet': prose`Dieser Grundriss ist noch nicht gespeichert: Speichern Sie den Plan, und geben Sie dann
    die Zeichnung.`,
  'not-a-drawing': ({ name }) =>
    prose`${name} ist keine Zeichnung, die sich zeigen lässt: Nehmen Sie SVG, PNG, JPEG oder PDF.`,
  'file-not-what-it-says': ({ name, type }) => `${name} gibt sich als ${type} aus und enthält etwas anderes.`,
  'file-is-empty': ({ name }) => `${name} ist leer.`,
  'file-too-large-named': ({ name, told }) => `${name} ist zu groß: ${told}. Speichern Sie sie kleiner.`,
  'file-not-kept': ({ name, told }) => `${name} wurde nicht behalten: ${told}.`,
  'card-too-large': ({ most }) => `Eine Gerätekarte hat höchstens ${most} kB.`,
  'card-line': ({ line, field, told }) => `Zeile ${line}: ${field} ${told}.`,
  'job-exists': ({ slug }) => `Einen Auftrag „${slug}“ gibt es schon.`,
  'country-not-chosen': 'Wählen Sie das Land aus der Liste: Davon hängt beim Funk alles ab.',
  'units-not-listed': 'Das sind keine Einheiten der Liste.',
  'certificate-pinned-anew': ({ name }) =>
    prose`${name}: Sie wurde zurückgesetzt, ihr nächstes Zertifikat wird gemerkt`,
  'name-missing': 'sagen, wer sich darum gekümmert hat',
  'planner-ended': ({ code }) => `der Planer endete mit ${code} und ohne Plan`,
  'no-radio-rules': ({ country }) => `Für ${country} gibt es keine Funkregeln.`,
  'lock-not-an-address': ({ address }) => `„${address}“ ist keine IPv4-Adresse wie 10.44.8.21.`,
  'not-a-backup': 'es ist keine Sicherung von Air Muster',
  'backup-line-endless': 'eine ihrer Zeilen hat kein Ende',
  'backup-cut-short': 'sie endet mitten in einer Zeile',
  'backup-does-not-open': 'die Passphrase ist eine andere, oder die Datei wurde geändert',
  'network-not-saved-yet': prose`Dieses Netz ist noch nicht im gespeicherten Auftrag: Warten Sie, bis er gespeichert
    ist.`,
  'secret-not-saved-yet': prose`Der gespeicherte Auftrag hat dieses Geheimnis noch nicht: Warten Sie, bis er
    gespeichert ist.`,
  'private-key-never-shown': prose`Ein privater Schlüssel wird nie gezeigt: Geben Sie einen anderen, oder entfernen
    Sie ihn.`,
  'login-never-shown': 'Diese Anmeldung wird nie gezeigt: Geben Sie eine andere, oder entfernen Sie sie.',
  'secret-not-made-yet': 'Es wurde noch keines erzeugt.',
  'key-too-long': prose`Das ist zu lang für einen privaten Schlüssel: Geben Sie die Datei eines Schlüssels, wie
    id_ed25519.`,
  'key-has-passphrase': prose`Dieser Schlüssel hat eine eigene Passphrase: Speichern Sie eine Kopie ohne sie
    (ssh-keygen -p), und geben Sie diese. Hier wird sie versiegelt.`,
  'key-of-no-form': prose`Das ist kein privater Schlüssel im Format von OpenSSH oder PEM: Geben Sie die Datei ohne
    .pub am Ende.`,
  'key-is-public': prose`Das ist die öffentliche Hälfte eines Schlüssels: Geben Sie die private, die Datei ohne .pub
    am Ende.`,
  'backup-of-another-form': 'sie stammt von einer anderen Version, in anderer Form',
  'backup-rows-differ': ({ written, read }) =>
    prose`${written} Zeilen wurden geschrieben, und ${read} werden zurückgelesen`,
  'restore-during-muster': prose`ein Durchlauf läuft, und was seinen Einheiten gesagt wurde, ginge verloren: Halten
    Sie es erst an`,
  'database-away': ({ code, statement }) =>
    prose`Die Datenbank antwortet nicht (${code}${statement === null ? '' : `, bei: ${statement} …`})`,
  'database-full': ({ code, statement }) =>
    prose`Der Datenträger der Datenbank ist voll (${code}${statement === null ? '' : `, bei: ${statement} …`})`,
  'database-contended': ({ code, statement }) =>
    prose`Eine andere Änderung war im Weg (${code}${statement === null ? '' : `, bei: ${statement} …`})`,
  'database-refused': ({ code, statement }) =>
    prose`Die Datenbank weist eine Anweisung ab (${code}${statement === null ? '' : `, bei: ${statement} …`})`,
  'row-unreadable': ({ column, why }) => `Eine Zeile von ${column} ist nicht lesbar (${why})`,
  'card-file-line': ({ file, line, field, told }) => `${file} Zeile ${line}: ${field} ${told}.`,
  'rules-stay': 'Die Regeln bleiben, wie sie waren.',
  'rules-implausible': ({ name, nonsense, more }) =>
    prose`${name} kann nicht stimmen: ${nonsense}${more > 0 ? `, und ${more} weitere dieser Art` : ''}.`,
  'rules-of': ({ date }) => `vom ${date}`,
  'rules-from': ({ name, date }) => `aus ${name}, gebracht am ${date}`,
  'something-is-missing': 'Etwas fehlt.',
  'other-jobs-untouched': ({ told }) => `${told}. Die anderen Aufträge sind davon nicht berührt.`,
  lines: ({ of }) => of.join('\n'),
  'job-file-too-large': ({ most }) => `Diese Datei hat mehr als ${most} MB: Das ist keine Auftragsdatei.`,
  'job-file-not-json': ({ told }) => `Das ist keine Auftragsdatei: ${told}.`,
  'job-file-faulty': ({ faults }) => `Diese Auftragsdatei ist nicht zu übernehmen:\n${faults.join('\n')}`,
  'job-file-passphrase': prose`Die Passphrase öffnet die Geheimnisse dieser Datei nicht. Geben Sie die ein, unter der
    sie versiegelt wurde.`,
  'pages-do-not-answer': prose`Air Muster antwortet nicht. Nichts wurde geändert; versuchen Sie es wieder, wenn es
    läuft.`,
}
