/** Django's administration: tables with rows, pages to add and to change one, tokens hidden in each form. */
import { execFileSync } from 'node:child_process'
import { cpSync, existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Peer } from './peer-bench'

const python = '/usr/bin/python3'
const manage = `
import sys
from django.conf import settings
from pathlib import Path
here = Path(sys.argv.pop(1))
contrib = 'admin auth contenttypes sessions messages sites staticfiles'.split()
middleware = ['sessions.middleware.SessionMiddleware', 'auth.middleware.AuthenticationMiddleware',
              'messages.middleware.MessageMiddleware']
processors = ['django.template.context_processors.request', 'django.contrib.auth.context_processors.auth',
              'django.contrib.messages.context_processors.messages']
settings.configure(
    DEBUG=True, SECRET_KEY='of a test', ALLOWED_HOSTS=['*'], ROOT_URLCONF='__main__', SITE_ID=1,
    DEFAULT_AUTO_FIELD='django.db.models.AutoField', STATIC_URL='/static/', USE_TZ=True,
    DATABASES={'default': {'ENGINE': 'django.db.backends.sqlite3', 'NAME': str(here / 'db')}},
    INSTALLED_APPS=['django.contrib.' + each for each in contrib],
    MIDDLEWARE=['django.middleware.csrf.CsrfViewMiddleware'] + ['django.contrib.' + each for each in middleware],
    TEMPLATES=[{'BACKEND': 'django.template.backends.django.DjangoTemplates', 'APP_DIRS': True,
                'OPTIONS': {'context_processors': processors}}])
import django
django.setup()
from django.contrib import admin
from django.urls import path
from django.views.generic import RedirectView
urlpatterns = [path('admin/', admin.site.urls), path('', RedirectView.as_view(url='/admin/'))]
from django.core.management import execute_from_command_line
execute_from_command_line(['manage'] + sys.argv[1:])
`

export const djangoLogin = { user: 'admin', password: 'boxed pages' }

/**
 * Runs a command of one's own. @param made  folder of its script @param folder  of its database @returns what it says
 */
export const inDjango = (made: string, folder: string, ...words: string[]): string =>
  execFileSync(python, [join(made, 'manage.py'), folder, ...words], {
    encoding: 'utf8',
    env: { ...process.env, DJANGO_SUPERUSER_PASSWORD: djangoLogin.password },
  })

/** Its tables are made once. @param made  folder that lasts while the test does */
export function django(made: string): Peer {
  const script = join(made, 'manage.py')
  const run = (...words: string[]): string => inDjango(made, made, ...words)
  if (!existsSync(script)) {
    writeFileSync(script, manage)
    run('migrate', '--verbosity', '0')
    run('createsuperuser', '--noinput', '--username', djangoLogin.user, '--email', 'admin@box.test')
  }
  return {
    port: 8000,
    script: (folder) => {
      cpSync(join(made, 'db'), join(folder, 'db'))
      return `exec ${python} ${script} ${folder} runserver --noreload 0.0.0.0:8000 2>${folder}/log`
    },
  }
}
