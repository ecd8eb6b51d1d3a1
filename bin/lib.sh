# Shared by bin/start and bin/test: what is missing gets installed, and PostgreSQL clusters of the project's own.
# Sourced, never run. Needs bash, coreutils and Node.js.

NEEDED_NODE_MAJOR=20
NEEDED_NODE_MINOR=19

# Nobody stops for what cannot be said.
say() { printf '%s\n' "· $*" || true; }
die() {
  printf '%s\n' "✗ $*" >&2
  exit 1
}

is_root() { [ "$(id -u)" = 0 ]; }

# as_admin COMMAND...: as root, or through sudo without ever hanging on a password nobody is there to type.
as_admin() {
  if is_root; then
    "$@"
  elif [ -t 0 ]; then
    sudo "$@"
  else
    sudo -n "$@"
  fi
}

require_node() {
  command -v node >/dev/null && command -v npm >/dev/null ||
    die "Node.js with npm is missing. Install Node.js $NEEDED_NODE_MAJOR.$NEEDED_NODE_MINOR or newer, then run this again."
  node -e "const [a,b]=process.versions.node.split('.').map(Number); process.exit(a>$NEEDED_NODE_MAJOR||(a===$NEEDED_NODE_MAJOR&&b>=$NEEDED_NODE_MINOR)?0:1)" ||
    die "Node.js $(node -v) is too old. Install $NEEDED_NODE_MAJOR.$NEEDED_NODE_MINOR or newer, then run this again."
}

# require_space DIR MB: stops early, with the figure, instead of failing halfway through a write.
require_space() {
  local free_mb
  free_mb=$(df -Pm "$1" | awk 'NR==2 {print $4}')
  [ "$free_mb" -ge "$2" ] ||
    die "The disk holding $1 is full: $free_mb MB free, $2 MB needed. Make room there, then run this again."
}

# pg_bin [DATA]: folder of the server programs that fit a cluster, or the newest installed.
pg_bin() {
  local version
  if [ -n "${1:-}" ] && as_db_user test -f "$1/PG_VERSION"; then
    version=$(as_db_user cat "$1/PG_VERSION")
  else
    version=$(ls /usr/lib/postgresql 2>/dev/null | grep -E '^[0-9]+$' | sort -n | tail -1)
  fi
  [ -n "$version" ] && [ -x "/usr/lib/postgresql/$version/bin/postgres" ] || return 1
  printf '%s' "/usr/lib/postgresql/$version/bin"
}

# as_db_user COMMAND...: PostgreSQL refuses to run as root; there it runs as Debian's own postgres user.
as_db_user() {
  if is_root; then
    (cd / && runuser -u postgres -- env -i PATH=/usr/bin:/bin LC_ALL=C.UTF-8 "$@")
  else
    LC_ALL=C.UTF-8 "$@"
  fi
}

# install_packages PACKAGE...: Debian packages, with one clear line when that cannot be done.
install_packages() {
  local log
  command -v apt-get >/dev/null ||
    die "Missing: $*. This is not a Debian system; install them by hand, then run this again."
  if ! is_root; then
    command -v sudo >/dev/null ||
      die "Missing: $*, and there is no sudo here. Ask an administrator to run: apt-get install $*"
    as_admin true 2>/dev/null ||
      die "Missing: $*, and sudo wants a password. Run this in a terminal, or first: sudo apt-get install $*"
  fi
  say "installing $* (Debian packages; a minute or two)"
  # Otherwise Debian would start a cluster of the system's on port 5432.
  as_admin mkdir -p /etc/postgresql-common/createcluster.d
  printf 'create_main_cluster = false\n' |
    as_admin tee /etc/postgresql-common/createcluster.d/nine-ripples.conf >/dev/null
  log=$(mktemp)
  { as_admin apt-get update &&
    as_admin env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "$@"; } \
    >"$log" 2>&1 </dev/null || {
    tail -5 "$log" >&2
    die "Installing $* failed (above; all of it in $log). Check the network and the disk, then run this again."
  }
  rm -f "$log"
}

require_postgres() { pg_bin >/dev/null || install_packages postgresql; }
# Pages open in its shell without a window in half the time; where Debian has none yet, the whole browser does.
require_chromium() {
  [ -x /usr/bin/chromium-headless-shell ] || (install_packages chromium-headless-shell) ||
    [ -x /usr/bin/chromium ] || install_packages chromium
}

# network_address: this machine's own in the network, where it says one.
network_address() {
  local one
  for one in $(hostname -I 2>/dev/null); do
    if [[ $one =~ ^[0-9]+(\.[0-9]+){3}$ ]]; then
      printf '%s' "$one"
      return
    fi
  done
  die "This machine has no address in a network. Join one, or say which: ./bin/start --share ADDRESS"
}

# require_caddy STATE: $CADDY is Debian's, the system's own or taken out of its package: installed, it would start a service.
require_caddy() {
  CADDY=$(command -v caddy || true)
  [ -z "$CADDY" ] || return 0
  CADDY=$1/caddy/bin/usr/bin/caddy
  [ ! -x "$CADDY" ] || return 0
  command -v apt-get >/dev/null && command -v dpkg-deb >/dev/null ||
    die "Missing: caddy. This is not a Debian system; install it by hand, then run this again."
  local work log=$1/log/caddy-install.log
  work=$(mktemp -d)
  say "fetching caddy (a Debian package), which lets the network in"
  (cd "$work" && { apt-get download caddy || { as_admin apt-get update && apt-get download caddy; }; }) >"$log" 2>&1 </dev/null &&
    mkdir -p "$1/caddy/bin" && dpkg-deb -x "$work"/caddy_*.deb "$1/caddy/bin" >>"$log" 2>&1 || {
    tail -3 "$log" >&2
    rm -rf "$work"
    die "Caddy could not be fetched (above; all of it in $log). Check the network, then run this again; without --share it is not needed."
  }
  rm -rf "$work"
}

# write_caddyfile STATE ADDRESS PORT SERVER_PORT
write_caddyfile() {
  mkdir -p "$1/caddy/public"
  cat >"$1/caddy/Caddyfile" <<CADDYFILE
{
	admin off
	skip_install_trust
	auto_https disable_redirects
	storage file_system "$1/caddy/data"
	default_sni $2
	log {
		level WARN
	}
}
https://$2:$3 {
	bind $2
	tls internal
	handle /authority.crt {
		root * "$1/caddy/public"
		file_server
	}
	handle {
		reverse_proxy 127.0.0.1:$4 {
			flush_interval -1
			header_up X-Ripples-Network 1
		}
	}
}
CADDYFILE
}

# offer_authority STATE: what devices trust this machine by, without the key that lies beside it.
offer_authority() {
  local tries=0
  until [ -s "$1/caddy/data/pki/authorities/local/root.crt" ] || [ $((tries += 1)) -gt 50 ]; do sleep 0.1; done
  cp "$1/caddy/data/pki/authorities/local/root.crt" "$1/caddy/public/authority.crt" 2>/dev/null || true
}

# run_logged WHAT LOG COMMAND...: shows that it runs, and the end of its output only if it fails.
run_logged() {
  local what=$1 log=$2 started=$SECONDS
  shift 2
  say "$what"
  "$@" >"$log" 2>&1 </dev/null || {
    tail -20 "$log" >&2
    die "$what failed (above; all of it in $log)."
  }
  say "$what: done in $((SECONDS - started)) s"
}

fingerprint() { sha256sum "$@" | sha256sum | cut -d' ' -f1; }

# require_modules LOGDIR: npm packages as the lockfile has them, once for each lockfile.
require_modules() {
  local want stamp=node_modules/.installed-from
  want=$(fingerprint package-lock.json package.json)
  if [ "$(cat $stamp 2>/dev/null)" != "$want" ]; then
    [ -w . ] || die "$PWD is not yours to write in. Run this as its owner, or copy the project to a folder of yours."
    [ ! -e node_modules ] || [ -w node_modules ] ||
      die "$PWD/node_modules belongs to another user. Remove it (sudo rm -rf node_modules), then run this again."
    require_space . 1500
    NUXT_TELEMETRY_DISABLED=1 run_logged "installing npm packages (about a minute)" "$1/npm.log" npm ci --no-audit --no-fund --ignore-scripts
    printf '%s' "$want" >$stamp
  fi
}

# require_build LOGDIR: the application, built again only when its sources changed.
require_build() {
  local want stamp=.output/.built-from
  want=$(find app core server shared public devices scripts/database.ts scripts/backup.ts scripts/buildTools.mjs nuxt.config.ts package.json package-lock.json -type f ! -name '*.test.ts' -print0 |
    sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  if [ "$(cat $stamp 2>/dev/null)" != "$want" ]; then
    [ ! -e .output ] || [ -w .output ] ||
      die "$PWD/.output belongs to another user. Remove it (sudo rm -rf .output .nuxt), then run this again."
    require_space . 500
    NUXT_TELEMETRY_DISABLED=1 run_logged "building the application (about a minute)" "$1/build.log" npm run build
    printf '%s' "$want" >$stamp
  fi
}

port_taken() { (exec 3<>"/dev/tcp/${2:-127.0.0.1}/$1") 2>/dev/null; }

# free_port FROM: the first port from there that nobody listens on.
free_port() {
  local port=$1
  while port_taken "$port"; do port=$((port + 1)); done
  printf '%s' "$port"
}

new_secret() { node -p "require('crypto').randomBytes(24).toString('hex')"; }

# cluster_create DIR: a cluster in DIR/data with a generated password in DIR/password (mode 600). Until it is whole it goes
# by another name: what is called DIR/data was a workshop, and is never taken for half of a new one.
cluster_create() {
  local dir=$1 bin password_copy
  bin=$(pg_bin)
  rm -rf "$dir/data.new"
  (umask 077 && new_secret >"$dir/password.new")
  if is_root; then
    chmod 711 "$dir"
    install -d -m 700 -o postgres -g postgres "$dir/data.new"
    password_copy=$(mktemp)
    install -m 600 -o postgres "$dir/password.new" "$password_copy"
  else
    mkdir -p -m 700 "$dir/data.new"
    password_copy=$dir/password.new
  fi
  as_db_user "$bin/initdb" -D "$dir/data.new" -U ripples --pwfile="$password_copy" -A scram-sha-256 -E UTF8 \
    --locale=C.UTF-8 >"$dir/initdb.log" 2>&1 || {
    tail -3 "$dir/initdb.log" >&2
    die "The database could not be created in $dir (above). Check the disk and the folder's rights, then run this again."
  }
  [ "$password_copy" = "$dir/password.new" ] || rm -f "$password_copy"
  # In this order: a database whose password is missing gets another one.
  mv "$dir/data.new" "$dir/data"
  mv "$dir/password.new" "$dir/password"
}

# holds_cluster DATA: whether it is a cluster, whole enough to hold somebody's rows.
holds_cluster() { as_db_user test -f "$1/PG_VERSION" && as_db_user test -f "$1/global/pg_control"; }

# require_owner DIR: what is in DIR/data is looked at by its owner only.
require_owner() {
  local data=$1/data owner me
  owner=$(stat -c %U "$data")
  me=$(is_root && echo postgres || id -un)
  [ "$owner" = "$me" ] ||
    die "The database in $data belongs to $owner, not to $me. Run this as $owner, or: sudo chown -R $me $data"
}

# require_version DIR: the server programs that fit the cluster there are installed.
require_version() {
  local data=$1/data version
  pg_bin "$data" >/dev/null || {
    version=$(as_db_user cat "$data/PG_VERSION" 2>/dev/null || echo '?')
    die "The database in $data is of PostgreSQL $version, which is not installed here. Install it (sudo apt-get install postgresql-$version), then run this again."
  }
}

# new_password DIR: the file with the owner's password is gone; the cluster gets another one, and keeps all it holds.
new_password() {
  local dir=$1 password
  password=$(new_secret)
  printf "alter role ripples password '%s';\n" "$password" |
    as_db_user "$(pg_bin "$dir/data")/postgres" --single -D "$dir/data" -c log_statement=none postgres \
      >"$dir/log/password.log" 2>&1 || return 1
  ! grep -qE '(ERROR|FATAL):' "$dir/log/password.log" || return 1
  (umask 077 && printf '%s\n' "$password" >"$dir/password")
}

# require_whole DIR: what is called DIR/data can be read and is a whole cluster. Whatever else it is, it is left as it is.
require_whole() {
  local at=$1/data barred=$1/data cure
  if ! as_db_user test -r "$at" -a -x "$at"; then
    while [ "$at" != / ]; do
      as_db_user test -x "$at" || barred=$at
      at=$(dirname "$at")
    done
    cure="chmod o+x $barred"
    [ "$barred" != "$1/data" ] || cure="chmod 700 $barred"
    die "The workshop in $1 cannot be read: its database's user does not get into $barred. Nothing was touched. Give the way free (sudo $cure), then run this again."
  fi
  holds_cluster "$1/data" ||
    die "What is in $1/data is no whole database: a file of it is missing. Nothing was touched. Put the missing back, or move $1 aside and read a backup in with ./bin/restore FILE."
}

# require_no_traces DIR: where there is a password but no database, a workshop was here and is somewhere else now.
require_no_traces() {
  [ ! -s "$1/password" ] ||
    die "There was a workshop in $1, and its database $1/data is gone. Nothing was touched. Put it back (is its disk there?), or move $1 aside to begin anew."
}

# processes_in DATA: pids of PostgreSQL processes that live in a data folder; each of them works from inside it.
processes_in() {
  local proc data
  data=$(readlink -f "$1")
  for proc in /proc/[0-9]*; do
    [ "$(readlink "$proc/cwd" 2>/dev/null)" = "$data" ] || continue
    [ "$(cat "$proc/comm" 2>/dev/null)" = postgres ] && printf '%s\n' "${proc#/proc/}"
  done
  return 0
}

# cluster_pid DIR: the pid of its postmaster, if postmaster.pid names one that really is. A damaged file, or one that
# names somebody else's process, names none.
cluster_pid() {
  local pid living
  pid=$(as_db_user head -1 "$1/data/postmaster.pid" 2>/dev/null) || return 1
  living=$(processes_in "$1/data")
  [[ $pid =~ ^[0-9]+$ && $'\n'$living$'\n' == *$'\n'$pid$'\n'* ]] && printf '%s' "$pid"
}
cluster_running() { cluster_pid "$1" >/dev/null; }

# clear_stale_pid DIR: PostgreSQL will not start over a postmaster.pid that is damaged or names a living stranger.
clear_stale_pid() {
  local data=$1/data tries=0
  # Those whose postmaster was killed end by themselves, within moments.
  local living
  while living=$(processes_in "$data") && [ -n "$living" ]; do
    [ $((tries += 1)) -le 60 ] ||
      die "The database in $data is still in use by process ${living%%$'\n'*}. Wait for it or end it, then run this again."
    sleep 0.1
  done
  as_db_user test -e "$data/postmaster.pid" || return 0
  as_db_user mv "$data/postmaster.pid" "$data/postmaster.pid.stale"
}

# try_cluster_start DIR [OPTIONS]: starts or adopts it; sets DATABASE_PORT. Returns 1, with this run's log shown, where it
# cannot.
try_cluster_start() {
  local dir=$1 options=${2:-} log=$1/data/server.log before tries=0
  if cluster_running "$dir"; then
    say "the database was still running (left by a crash); taking it over"
    DATABASE_PORT=$(as_db_user sed -n 4p "$dir/data/postmaster.pid")
    return
  fi
  clear_stale_pid "$dir"
  # Below the ports that the system gives to outgoing connections: one of those holds a port without listening on it.
  DATABASE_PORT=${DATABASE_PORT:-24310}
  while :; do
    DATABASE_PORT=$(free_port "$DATABASE_PORT")
    before=$(as_db_user stat -c %s "$log" 2>/dev/null || echo 0)
    as_db_user "$(pg_bin "$dir/data")/pg_ctl" -D "$dir/data" -l "$log" -w -t 60 \
      -o "-c listen_addresses=127.0.0.1 -p $DATABASE_PORT -c unix_socket_directories='' $options" start \
      >/dev/null 2>&1 </dev/null && return
    # Somebody was quicker at that port: the next one.
    as_db_user tail -c "+$((before + 1))" "$log" 2>/dev/null | grep -q 'could not create any TCP/IP sockets' &&
      [ $((tries += 1)) -le 20 ] || break
    DATABASE_PORT=$((DATABASE_PORT + 1))
  done
  as_db_user tail -c "+$((before + 1))" "$log" 2>/dev/null | grep -v 'database system is shut down' | tail -3 >&2
  return 1
}

cluster_start() {
  try_cluster_start "$@" || die "The database did not start (above; all of it in $1/data/server.log)."
}

# cluster_stop DIR: asks its postmaster, and only that, to end.
cluster_stop() {
  local pid tries=0
  pid=$(cluster_pid "$1") || return 0
  kill -INT "$pid" 2>/dev/null || as_db_user kill -INT "$pid"
  while kill -0 "$pid" 2>/dev/null && [ $((tries += 1)) -le 600 ]; do sleep 0.1; done
}

# database_url DIR DATABASE: needs DATABASE_PORT.
database_url() { printf 'postgres://ripples:%s@127.0.0.1:%s/%s' "$(cat "$1/password")" "$DATABASE_PORT" "$2"; }

# state_folder: where the workshop is kept.
state_folder() {
  local state
  if is_root; then state=/var/lib/nine-ripples; else state=${XDG_STATE_HOME:-$HOME/.local/state}/nine-ripples; fi
  printf '%s' "${NINE_RIPPLES_STATE:-$state}"
}

# require_state STATE: it is there, ours to write in, and has room.
require_state() {
  mkdir -p "$1/log" 2>/dev/null ||
    die "$1 cannot be made. Give yourself a folder with NINE_RIPPLES_STATE=/some/folder."
  (: >"$1/log/.writable") 2>/dev/null ||
    die "$1 cannot be written in: it is another user's ($(stat -c %U "$1")), or its disk is read-only or full. Mend that, or name another folder with NINE_RIPPLES_STATE=/some/folder."
  rm -f "$1/log/.writable"
  require_space "$1" 200
}

MOST_LOG_BYTES=$((8 * 1024 * 1024))
# bound_log FILE [AS]: a log that others append to stays within its bound; of what it held, the last half is kept beside it,
# by whoever owns it.
bound_log() {
  local as=${2:-} bytes
  bytes=$(stat -c %s "$1" 2>/dev/null) || return 0
  [ "$bytes" -gt "$MOST_LOG_BYTES" ] || return 0
  $as bash -c 'tail -c "$2" "$1" >"$1.1"; : >"$1"' - "$1" $((MOST_LOG_BYTES / 2)) 2>/dev/null || true
}

# lock_state STATE: one at a time on one workshop. The lock goes with the script; children are started without it.
lock_state() {
  exec 9>"$1/lock"
  flock -n 9 || die "Nine Ripples is already running: $(cat "$1/address" 2>/dev/null || echo "it is just starting"). Stop that one first."
}

# write_backup STATE FILE: everything the workshop's database holds, photos with it; needs DATABASE_PORT. FILE appears
# when it is whole.
write_backup() {
  local part=$2.part
  # The database's own user may not write where the file goes: it is written by whoever runs this.
  (umask 077 && PGPASSWORD=$(cat "$1/password") "$(pg_bin "$1/data")/pg_dump" -h 127.0.0.1 -p "$DATABASE_PORT" -U ripples \
    -Fc postgres >"$part" 2>"$1/log/backup.log") || {
    tail -3 "$1/log/backup.log" >&2
    rm -f "$part"
    die "The backup could not be written to $2 (above). Check the disk, then run this again."
  }
  mv "$part" "$2"
}

# restore_dump STATE FILE: puts a backup into the empty, running cluster of STATE, all of it or nothing; needs DATABASE_PORT.
restore_dump() {
  local owner
  owner=$(database_url "$1" postgres)
  mkdir -p "$1/log"
  # Whose rights the backup's rows and functions name.
  NINE_RIPPLES_OWNER_URL=$owner NINE_RIPPLES_APP_PASSWORD=$(new_secret) node_modules/.bin/tsx scripts/database.ts app-role &&
    PGPASSWORD=$(cat "$1/password") "$(pg_bin "$1/data")/pg_restore" -h 127.0.0.1 -p "$DATABASE_PORT" -U ripples -d postgres \
      --exit-on-error --single-transaction "$2" 2>"$1/log/restore.log"
}

# follow_create STATE FOLDER: a copy in FOLDER of the running cluster of STATE, to follow it; needs DATABASE_PORT.
follow_create() {
  local bin
  bin=$(pg_bin "$1/data")
  mkdir -p "$2/log" 2>/dev/null && [ -w "$2" ] || die "$2 cannot be written in. Name another folder for the second copy."
  rm -rf "$2/data.new"
  ! is_root || chmod 711 "$2"
  PGPASSWORD=$(cat "$1/password") "$bin/pg_basebackup" -h 127.0.0.1 -p "$DATABASE_PORT" -U ripples -D "$2/data.new" \
    -X stream -c fast >"$2/log/copy.log" 2>&1 || {
    tail -3 "$2/log/copy.log" >&2
    rm -rf "$2/data.new"
    die "The second copy could not be made in $2 (above). Check its disk, then run this again."
  }
  : >"$2/data.new/standby.signal"
  ! is_root || chown -R postgres:postgres "$2/data.new"
  (umask 077 && cp "$1/password" "$2/password")
  mv "$2/data.new" "$2/data"
}

# cluster_id DIR: what a cluster and its copies have in common.
cluster_id() { as_db_user "$(pg_bin "$1/data")/pg_controldata" "$1/data" | sed -n 's/^Database system identifier: *//p'; }

# follow_point STATE FOLDER: where the copy in FOLDER finds the cluster of STATE now; needs DATABASE_PORT.
follow_point() {
  printf "primary_conninfo = 'host=127.0.0.1 port=%s user=ripples password=%s'\n" "$DATABASE_PORT" "$(cat "$1/password")" |
    as_db_user sh -c 'umask 077; cat >"$1/postgresql.auto.conf"' - "$2/data"
}

# try_follow STATE FOLDER: starts the copy, which is made where there is none; sets REPLICA_PORT. Needs DATABASE_PORT.
try_follow() {
  local first=$DATABASE_PORT code=0
  follow_point "$1" "$2"
  # Where it was before, if it was: the server knows it by that.
  DATABASE_PORT=${REPLICA_PORT:-$((first + 1))}
  try_cluster_start "$2" "-c hot_standby_feedback=on" || code=1
  REPLICA_PORT=$DATABASE_PORT
  DATABASE_PORT=$first
  return $code
}
