/**
 * WordPress under PHP's own server, as it comes: a first run without any sign-in that makes the admin, pages with
 * menus, notices, lists with a form beside them. Its database is one of the tests' own server.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import type { Peer } from './peer-bench'

/** The database of the one in this folder. */
export const databaseOf = (folder: string): string =>
  `air_muster_${basename(join(folder, '..')).replaceAll('-', '_')}_${basename(folder)}`

/** @param socket  of a database server that lets this machine's root in */
export const wordpress = (socket: string): Peer => ({
  port: 80,
  script: (folder) => {
    const name = databaseOf(folder)
    const etc = join(folder, 'etc')
    mkdirSync(etc)
    writeFileSync(
      join(etc, 'config-default.php'),
      `<?php
define('DB_NAME', '${name}');
define('DB_USER', 'root');
define('DB_PASSWORD', '');
define('DB_HOST', 'localhost:${socket}');
define('WP_CONTENT_DIR', '/usr/share/wordpress/wp-content');
define('WP_HTTP_BLOCK_EXTERNAL', true);
define('DISABLE_WP_CRON', true);
`,
    )
    const made = `(new mysqli('localhost', 'root', '', null, 0, '${socket}'))->query('create database ${name}');`
    return `mount --bind ${etc} /etc/wordpress && php -r "${made}" &&
      PHP_CLI_SERVER_WORKERS=4 exec php -S 0.0.0.0:80 -t /usr/share/wordpress 2>${folder}/log`
  },
})
