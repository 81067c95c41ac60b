import type { Sentences } from '../../../core/message/message'
import type { storeMessages } from '../../../core/message/store'
import { prose } from '../../prose'
import { copyName } from '../parts'

export const storeSentences: Sentences<typeof storeMessages> = {
  'job-gone': ({ job }) => `there is no job ${job} any more`,
  'files-full': prose`files were brought that no floor and no brief uses: they are swept away an hour after they came;
    wait for that`,
  'file-too-large': ({ most }) => `it has more than ${most} MB`,
  'version-stale': ({ what }) =>
    prose`Somebody else has changed ${what} in the meantime. Load it again and make your change once more.`,
  'what-brief': 'the brief',
  'column-not-json': 'it is not JSON',
  'what-kit-card': ({ model }) => `the kit card of ${model}`,
  'settings-missing': 'AIR_MUSTER_DB and AIR_MUSTER_VAULT_FILE are not set: start with npm run demo',
  'muster-open': prose`A muster of this job is under way, for other units. Wait until it is over or pause it, then
    muster these.`,
  'rules-not-a-database': ({ name, told }) => `${name} is not a regulatory database: ${told}.`,
  'rules-without-country': ({ name, country, why }) => `${name} has no rules for ${country}, and ${why}.`,
  'every-file-has-them': 'every such file has them',
  'a-job-is-there': 'a job is there',
  'rules-cut-short': ({ name, lost }) =>
    prose`${name} lacks ${lost} countries that the present file has: it is cut short, or another kind of file.`,
  'rules-signature-unfit': ({ name, why }) => `The signature does not fit ${name}: ${why}.`,
  'rules-without-signature': 'It comes without a signature: nothing says whose it is.',
  'rules-offer-outdated': 'Another file was brought meanwhile. Look at the newest, then say yes to that.',
  'signature-unreadable': 'it is not a signature that can be read',
  'signature-without-certificate': 'it does not bring the certificate of its signer',
  'signature-of-another-file': 'the file was changed after it was signed, or it was signed for another file',
  'signed-by-known': ({ signer }) => `Signed by ${signer}, and unchanged since.`,
  'signed-by-unknown': ({ certificate }) =>
    prose`Signed with a key that is not known here (certificate ${certificate}…), and unchanged since.`,
  'what-floors': 'the floors',
  'vault-key-length': ({ length, needed }) => `the vault's key has ${length} bytes, ${needed} are needed`,
  'not-sealed-by-vault': ({ label }) => `${label} is not sealed by this vault`,
  'sealed-with-another-key': ({ label }) => `${label} was sealed with another key`,
  'vault-key-readable': ({ file }) => `others can read the vault's key: run chmod 600 ${file}`,
  'backup-newer': 'it was made by a newer release: bring this one up to date first',
  'backup-column-unknown': ({ table, column }) => `this release has no column ${table}.${column}`,
  'backup-row-astray': 'it has a row that belongs to no table',
  'backup-row-width': ({ table, count }) => `a row of ${table} has ${count} values`,
  'release-differs': 'This page and what answers it are not of one release: load it anew.',
  'rules-file-missing': 'Choose a regulatory.db file.',
  'rules-file-too-large': ({ name }) => `${name} has more than 1 MB: it is not a regulatory database.`,
  'job-no-longer-there': 'This job is no longer there.',
  'database-away-unchanged': 'The database is away. Nothing was changed; it is started again, then try once more.',
  'database-full-unchanged': prose`The disk of the database is full. Nothing was changed; make room, then try once
    more.`,
  'database-refuses-unchanged': 'The database does not take this. Nothing was changed.',
  'unit-no-longer-listed': 'This unit is no longer on the kit list.',
  'copy-missing': ({ name, copy }) => `There is no copy of ${name} ${copyName(copy)} yet.`,
  'picture-missing': ({ name }) => `There is no picture of a page of ${name}.`,
  'delete-needs-name': ({ name }) => `To delete it, type its name as it stands: ${name}`,
  'delete-during-muster': prose`A muster of this job is under way. Pause it or wait until it is over, then delete the
    job.`,
  'floor-not-kept-yet': 'This floor is not kept yet: save the plan, then give it its drawing.',
  'not-a-drawing': ({ name }) => `${name} is not a drawing that can be shown: take SVG, PNG, JPEG or PDF.`,
  'file-not-what-it-says': ({ name, type }) =>
    prose`${name} says that it is ${type}, and its content is something else.`,
  'file-is-empty': ({ name }) => `${name} is empty.`,
  'file-too-large-named': ({ name, told }) => `${name} is too large: ${told}. Save it smaller.`,
  'file-not-kept': ({ name, told }) => `${name} was not kept: ${told}.`,
  'card-too-large': ({ most }) => `A kit card has ${most} kB at the most.`,
  'card-line': ({ line, field, told }) => `Line ${line}: ${field} ${told}.`,
  'job-exists': ({ slug }) => `There is a job "${slug}" already.`,
  'country-not-chosen': 'Choose the country from the list: it decides everything about radios.',
  'units-not-listed': 'These are not units of the list.',
  'certificate-pinned-anew': ({ name }) => `${name}: it was reset, its next certificate is pinned`,
  'name-missing': 'say who has seen to it',
  'planner-ended': ({ code }) => `the planner ended with ${code} and no plan`,
  'no-radio-rules': ({ country }) => `There are no radio rules for ${country}.`,
  'lock-not-an-address': ({ address }) => `"${address}" is not an IPv4 address such as 10.44.8.21.`,
  'not-a-backup': 'it is no backup of Air Muster',
  'backup-line-endless': 'one of its lines has no end',
  'backup-cut-short': 'it ends in the middle of a line',
  'backup-does-not-open': 'the passphrase is another one, or the file was changed',
  'network-not-saved-yet': 'This network is not in the saved brief yet: wait until it is saved.',
  'secret-not-saved-yet': 'The saved brief has no such secret yet: wait until it is saved.',
  'private-key-never-shown': 'A private key is never shown: give another, or take it off.',
  'login-never-shown': 'This login is never shown: give another, or take it away.',
  'secret-not-made-yet': 'It has not been made yet.',
  'key-too-long': 'This is too long for a private key: give the file of one key, such as id_ed25519.',
  'key-has-passphrase': prose`This key has a passphrase of its own: save a copy without it (ssh-keygen -p), and give
    that. It is sealed here.`,
  'key-of-no-form': prose`This is no private key in the form of OpenSSH or PEM: give the file whose name has no .pub
    at its end.`,
  'key-is-public': prose`This is the public half of a key: give the private one, the file whose name has no .pub at
    its end.`,
  'backup-of-another-form': 'it was made by another release, in another form',
  'backup-rows-differ': ({ written, read }) => `${written} rows were written to it, and ${read} are read back`,
  'restore-during-muster': prose`a muster is under way, and what its units were told would be forgotten: pause it
    first`,
  'database-away': ({ code, statement }) =>
    prose`The database does not answer (${code}${statement === null ? '' : `, at: ${statement} …`})`,
  'database-full': ({ code, statement }) =>
    prose`The disk of the database is full (${code}${statement === null ? '' : `, at: ${statement} …`})`,
  'database-contended': ({ code, statement }) =>
    prose`Another change was in the way (${code}${statement === null ? '' : `, at: ${statement} …`})`,
  'database-refused': ({ code, statement }) =>
    prose`The database refuses a statement (${code}${statement === null ? '' : `, at: ${statement} …`})`,
  'row-unreadable': ({ column, why }) => `A row of ${column} cannot be read (${why})`,
  'card-file-line': ({ file, line, field, told }) => `${file} line ${line}: ${field} ${told}.`,
  'rules-stay': 'The rules stay as they were.',
  'rules-implausible': ({ name, nonsense, more }) =>
    prose`${name} cannot be right: ${nonsense}${more > 0 ? `, and ${more} more like it` : ''}.`,
  'rules-of': ({ date }) => `of ${date}`,
  'rules-from': ({ name, date }) => `from ${name}, dropped in on ${date}`,
  'something-is-missing': 'Something is missing.',
  'other-jobs-untouched': ({ told }) => `${told}. The other jobs are not touched by it.`,
  lines: ({ of }) => of.join('\n'),
  'job-file-too-large': ({ most }) => `This file has more than ${most} MB: it is not a job file.`,
  'job-file-not-json': ({ told }) => `This is not a job file: ${told}.`,
  'job-file-faulty': ({ faults }) => `This job file cannot be taken:\n${faults.join('\n')}`,
  'job-file-passphrase': prose`The passphrase does not open the secrets of this file. Type the one that it was sealed
    under.`,
  'pages-do-not-answer': 'Air Muster does not answer. Nothing was changed; try again when it runs.',
}
